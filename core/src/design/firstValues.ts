import { z } from 'zod';
import type { Path } from '../values/problem.ts';
import { remember } from '../values/remember.ts';
import { applyEdits } from './applyEdits.ts';
import { sameJson } from './edits.ts';
import type { Design } from './schema.ts';

/** A figure to begin with, and where it goes. */
export interface FirstValue {
  readonly path: readonly string[];
  /** Anything that a document can hold. */
  readonly value: unknown;
}

const json = z.json();

const placeOf = (path: Path): string => path.join('/');

const hasId = (value: unknown): value is { readonly id: unknown } =>
  typeof value === 'object' && value !== null && 'id' in value;

/** Entities of a list by their id: marks of a whole survey are followed in one pass over it. */
const byId = remember(
  (list: readonly unknown[]) => new Map(list.filter(hasId).map((entity) => [entity.id, entity])),
);

/** What stands at a place of a design; entities of a list go by their id. Undefined where nothing does. */
export function valueAt(design: Design, path: Path): unknown {
  let value: unknown = design;
  for (const part of path) {
    if (Array.isArray(value)) {
      value = byId(value).get(part);
    } else if (typeof value === 'object' && value !== null) {
      value = new Map<string | number, unknown>(Object.entries(value)).get(part);
    } else return undefined;
  }
  return value;
}

function marked(design: Design, ids: readonly string[]): Design {
  const { firstValues: _old, ...rest } = design;
  return ids.length === 0 ? rest : { ...rest, firstValues: ids.map((id) => ({ id })) };
}

const marksOf = (design: Design): readonly string[] => (design.firstValues ?? []).map(({ id }) => id);

/** The fields of a value: a list is one field, an object is one for each of its own. */
function leaves(path: readonly string[], value: unknown): string[] {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return [placeOf(path)];
  return Object.entries(value).flatMap(([key, inner]) => leaves([...path, key], inner));
}

/** Fills fields that nobody has stated, and marks each of them. What is stated already stays as it is, without a mark. */
export function withFirstValues(design: Design, values: readonly FirstValue[]): Design {
  const open = values.filter(({ path }) => valueAt(design, path) === undefined);
  const applied = applyEdits(
    design,
    open.map(({ path, value }) => ({ op: 'set', path: [...path], after: json.parse(value) })),
  );
  if (!applied.ok) throw new Error(`A first value has no place: ${applied.problems[0]?.message ?? ''}`);
  const ids = new Set([...marksOf(design), ...open.flatMap(({ path, value }) => leaves(path, value))]);
  return marked(applied.value as Design, [...ids]);
}

/** Marks fields that a new entity brought with it. */
export const withMarks = (design: Design, paths: readonly (readonly string[])[]): Design =>
  marked(design, [...new Set([...marksOf(design), ...paths.map(placeOf)])]);

/** The marked fields that still hold a value, in the order in which they were filled. */
export const openFirstValues = (design: Design): readonly Path[] =>
  marksOf(design)
    .map((id) => id.split('/'))
    .filter((path) => valueAt(design, path) !== undefined);

/** Takes the marks of some fields off: somebody has looked at them. */
export function keepFirstValues(design: Design, ids: ReadonlySet<string>): Design {
  return marked(
    design,
    marksOf(design).filter((id) => !ids.has(id)),
  );
}

/** Takes the mark off every field whose value a change has touched or removed. The same design where there is none. */
export function withoutTouched(before: Design, after: Design): Design {
  const touched = marksOf(after).filter((id) => {
    const path = id.split('/');
    const now = valueAt(after, path);
    return now === undefined || !sameJson(json.optional().parse(valueAt(before, path)), json.parse(now));
  });
  const old = new Set(marksOf(before));
  const gone = touched.filter((id) => old.has(id));
  return gone.length === 0 ? after : keepFirstValues(after, new Set(gone));
}
