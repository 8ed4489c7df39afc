/**
 * Works a value out once for each key and keeps it for as long as the key lives. Keys are never changed once they are made, so what
 * follows from one stays right.
 */
export function remember<K extends object, T>(make: (key: K) => T): (key: K) => T {
  const made = new WeakMap<K, { readonly value: T }>();
  return (key) => {
    const before = made.get(key);
    if (before !== undefined) return before.value;
    const value = make(key);
    made.set(key, { value });
    return value;
  };
}

/**
 * The same for what follows from a few objects alone, whatever else its key holds: while those stay the same ones, a new key finds the value
 * of the one before it. The first of them is what it is kept beside.
 */
export function rememberBy<K extends object, T>(
  partsOf: (key: K) => readonly [object, ...unknown[]],
  make: (key: K) => T,
): (key: K) => T {
  const last = new WeakMap<object, { readonly parts: readonly unknown[]; readonly value: T }>();
  return remember((key) => {
    const parts = partsOf(key);
    const before = last.get(parts[0]);
    if (before?.parts.length === parts.length && before.parts.every((part, at) => part === parts[at]))
      return before.value;
    const value = make(key);
    last.set(parts[0], { parts, value });
    return value;
  });
}
