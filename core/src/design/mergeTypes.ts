import type { Problem } from '../values/problem.ts';
import { typeQuestions } from '../catalogue/questions.ts';
import type { EquipmentType } from '../catalogue/schema.ts';

/** What becomes of a type that is brought in from a file. */
export interface MergedType {
  /** As it would be kept, with the version it would get. */
  readonly type: EquipmentType;
  readonly outcome: 'new' | 'next-version' | 'same' | 'copy-of-sample';
  readonly questions: readonly Problem[];
}

/** All of a type but its version: what makes two versions differ. */
const figuresOf = (type: EquipmentType): string => {
  const { version: _version, ...rest } = type;
  return JSON.stringify(Object.entries(rest).sort(([a], [b]) => (a < b ? -1 : 1)));
};

/** An id that is free: the name in small letters, with a number where it is taken. */
export function freeTypeId(name: string, taken: ReadonlySet<string>): string {
  const stem =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 34) || 'type';
  const start = /^[a-z0-9]/.test(stem) ? stem : `t-${stem}`;
  if (!taken.has(start)) return start;
  for (let number = 2; ; number += 1) if (!taken.has(`${start}-${number}`)) return `${start}-${number}`;
}

/**
 * Lays types from a file beside those a firm has: an id that is new stays, one that the firm has becomes its next version (or is
 * left alone where nothing differs), and one of a sample becomes a copy, because samples stay as they are.
 */
export function mergeTypes(
  incoming: readonly EquipmentType[],
  own: readonly EquipmentType[],
  samples: readonly EquipmentType[],
): MergedType[] {
  const bySample = new Map(samples.map((type) => [type.id, type]));
  const latest = new Map(own.map((type) => [type.id, type]));
  const taken = new Set([...bySample.keys(), ...latest.keys()]);
  return incoming.map((type): MergedType => {
    const questions = typeQuestions(type);
    const sample = bySample.get(type.id);
    const before = latest.get(type.id);
    if (sample !== undefined) {
      if (figuresOf(sample) === figuresOf(type)) return { type: sample, outcome: 'same', questions: [] };
      const id = freeTypeId(type.name, taken);
      taken.add(id);
      return { type: { ...type, id, version: 1 }, outcome: 'copy-of-sample', questions };
    }
    if (before === undefined) {
      const fresh = { ...type, version: 1 };
      latest.set(type.id, fresh);
      taken.add(type.id);
      return { type: fresh, outcome: 'new', questions };
    }
    if (figuresOf(before) === figuresOf(type)) return { type: before, outcome: 'same', questions: [] };
    const next = { ...type, version: before.version + 1 };
    latest.set(type.id, next);
    return { type: next, outcome: 'next-version', questions };
  });
}
