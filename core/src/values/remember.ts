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
