/** Sets a field of a draft, or takes it away: absent means not known. */
export function put<T extends object, K extends keyof T>(target: T, key: K, value: T[K] | undefined): void {
  if (value === undefined) Reflect.deleteProperty(target, key);
  else target[key] = value;
}
