import type { Path } from './problem.ts';

/**
 * A value, or the fact that it is not known with the places in the design where it would have to be said.
 * A missing value is never stood in for.
 */
export type Known<T> =
  { readonly known: true; readonly value: T } | { readonly known: false; readonly missing: readonly Path[] };

export const known = <T>(value: T): Known<T> => ({ known: true, value });
export const unknownAt = (
  ...missing: Path[]
): { readonly known: false; readonly missing: readonly Path[] } => ({ known: false, missing });

/** A field that may be absent, with its own place. */
export function field<T>(value: T | undefined, ...path: string[]): Known<T> {
  return value === undefined ? unknownAt(path) : known(value);
}

export function mapKnown<A, B>(input: Known<A>, change: (value: A) => B): Known<B> {
  return input.known ? known(change(input.value)) : input;
}

type Values<T extends Record<string, Known<unknown>>> = {
  [K in keyof T]: T[K] extends Known<infer V> ? V : never;
};

/** All of them, or every place that is still missing. */
export function all<T extends Record<string, Known<unknown>>>(inputs: T): Known<Values<T>> {
  const missing: Path[] = [];
  const values: Record<string, unknown> = {};
  for (const [key, input] of Object.entries(inputs)) {
    if (input.known) values[key] = input.value;
    else missing.push(...input.missing);
  }
  return missing.length > 0 ? { known: false, missing: uniquePaths(missing) } : known(values as Values<T>);
}

/** Each place once, in order of first mention. */
export function uniquePaths(paths: readonly Path[]): Path[] {
  return [...new Map(paths.map((path) => [path.join('\n'), path])).values()];
}
