import type { Design } from '@bastion/core';
import { put } from './put.ts';
import { useJob } from './job.ts';

type Marks = NonNullable<Design['firstValues']>;

const sets = new WeakMap<Marks, ReadonlySet<string>>();
const NONE: ReadonlySet<string> = new Set();

function setOf(marks: Marks | undefined): ReadonlySet<string> {
  if (marks === undefined) return NONE;
  const known = sets.get(marks) ?? new Set(marks.map(({ id }) => id));
  sets.set(marks, known);
  return known;
}

/** Whether a field holds a value that the program began with and nobody has looked at yet. */
export const useIsFirst = (key: string): boolean =>
  useJob((store) => setOf(store.job?.design.firstValues).has(key));

/** The same, asked once. */
export const isFirst = (key: string): boolean => setOf(useJob.getState().job?.design.firstValues).has(key);

/** Takes the marks of some fields off: somebody has looked at them and keeps them as they are. */
export function keepFirst(label: string, keys: ReadonlySet<string>): void {
  useJob.getState().change(label, (draft) => {
    const left = (draft.firstValues ?? []).filter(({ id }) => !keys.has(id));
    put(draft, 'firstValues', left.length === 0 ? undefined : left);
  });
}
