import { z } from 'zod';
import { type Path, type Result } from '../values/problem.ts';

/**
 * An edit is a small change to a document with everything needed to undo it. Entities are named by id, not by place in
 * their list, so that two people who add rows do not collide. A list of plain values is one value.
 */
export const editSchema = z.discriminatedUnion('op', [
  z.strictObject({
    op: z.literal('set'),
    path: z.array(z.string()).min(1).max(16),
    before: z.json().optional(),
    after: z.json().optional(),
  }),
  z.strictObject({
    op: z.literal('insert'),
    path: z.array(z.string()).min(1).max(16),
    follows: z.string().nullable(),
    entity: z.json(),
  }),
  z.strictObject({
    op: z.literal('remove'),
    path: z.array(z.string()).min(1).max(16),
    follows: z.string().nullable(),
    entity: z.json(),
  }),
  z.strictObject({
    op: z.literal('order'),
    path: z.array(z.string()).min(1).max(16),
    before: z.array(z.string()),
    after: z.array(z.string()),
  }),
]);
export type Edit = z.infer<typeof editSchema>;
type Json = z.core.util.JSONType;
type JsonObject = Record<string, Json>;
type Entity = JsonObject & { id: string };

function isObject(value: Json | undefined): value is JsonObject {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
function isEntity(value: Json | undefined): value is Entity {
  return isObject(value) && typeof value.id === 'string';
}
function isEntityList(value: Json | undefined): value is Entity[] {
  return Array.isArray(value) && value.every(isEntity);
}

/** Whether two JSON values are the same. Shared references end the walk at once. */
export function sameJson(a: Json | undefined, b: Json | undefined): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) {
    return a.length === b.length && a.every((one, index) => sameJson(one, b[index]));
  }
  if (!isObject(a) || !isObject(b)) return false;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((key) => Object.hasOwn(b, key) && sameJson(a[key], b[key]))
  );
}

const ids = (list: readonly Entity[]): string[] => list.map((entity) => entity.id);

function diffLists(before: Entity[], after: Entity[], path: string[], edits: Edit[]): void {
  const old = new Map(before.map((entity) => [entity.id, entity]));
  const kept = new Set(ids(after));
  let rest = [...before];
  for (let index = before.length - 1; index >= 0; index -= 1) {
    const entity = before[index];
    if (entity === undefined || kept.has(entity.id)) continue;
    edits.push({ op: 'remove', path: [...path, entity.id], follows: before[index - 1]?.id ?? null, entity });
  }
  rest = rest.filter((entity) => kept.has(entity.id));
  const common = ids(after.filter((entity) => old.has(entity.id)));
  if (common.some((one, index) => rest[index]?.id !== one)) {
    edits.push({ op: 'order', path, before: ids(rest), after: common });
  }
  after.forEach((entity, index) => {
    const previous = old.get(entity.id);
    if (previous === undefined) {
      edits.push({ op: 'insert', path: [...path, entity.id], follows: after[index - 1]?.id ?? null, entity });
    } else {
      diffValues(previous, entity, [...path, entity.id], edits);
    }
  });
}

function diffValues(before: Json | undefined, after: Json | undefined, path: string[], edits: Edit[]): void {
  if (before === after) return;
  if (isEntityList(before) && isEntityList(after) && before.length + after.length > 0) {
    diffLists(before, after, path, edits);
  } else if (isObject(before) && isObject(after) && path.length < 15) {
    for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
      diffValues(before[key], after[key], [...path, key], edits);
    }
  } else if (!sameJson(before, after)) {
    edits.push({
      op: 'set',
      path,
      ...(before === undefined ? {} : { before }),
      ...(after === undefined ? {} : { after }),
    });
  }
}

/** The edits that lead from one document to another. Parts that are the same object are skipped whole. */
export function diff(before: object, after: object): Edit[] {
  const edits: Edit[] = [];
  diffValues(before as Json, after as Json, [], edits);
  return edits;
}

class Refused extends Error {}

function replaceAt(list: Entity[], key: string, change: (entity: Json) => Json, path: Path): Json {
  const index = list.findIndex((entity) => entity.id === key);
  const found = list[index];
  if (found === undefined)
    throw new Refused(`there is no longer anything called "${key}" at ${path.join('.')}`);
  const next = [...list];
  next[index] = change(found) as Entity;
  return next;
}

/** Rebuilds the spine down to `path` and applies `change` at its end. */
function changeAt(
  value: Json | undefined,
  path: readonly string[],
  depth: number,
  change: (target: Json | undefined) => Json | undefined,
): Json | undefined {
  const key = path[depth];
  if (key === undefined) return change(value);
  if (isEntityList(value)) {
    return replaceAt(
      value,
      key,
      (entity) => changeAt(entity, path, depth + 1, change) as Json,
      path.slice(0, depth),
    );
  }
  if (!isObject(value)) throw new Refused(`${path.slice(0, depth).join('.')} is not there any more`);
  if (key === '__proto__') throw new Refused('"__proto__" is not a field');
  const next = changeAt(Object.hasOwn(value, key) ? value[key] : undefined, path, depth + 1, change);
  const { [key]: _old, ...others } = value;
  if (next === undefined) return others;
  return Object.hasOwn(value, key) ? { ...value, [key]: next } : { ...others, [key]: next };
}

function listEdit(document: Json, path: readonly string[], change: (list: Entity[]) => Entity[]): Json {
  const where = path.join('.');
  return changeAt(document, path, 0, (list) => {
    if (!isEntityList(list)) throw new Refused(`${where} is not a list of things with ids`);
    return change(list);
  }) as Json;
}

function applyOne(document: Json, edit: Edit): Json {
  const parent = edit.path.slice(0, -1);
  const key = edit.path.at(-1) ?? '';
  switch (edit.op) {
    case 'set':
      return changeAt(document, edit.path, 0, () => edit.after) as Json;
    case 'insert':
      return listEdit(document, parent, (list) => {
        if (!isEntity(edit.entity) || edit.entity.id !== key)
          throw new Refused(`what is inserted at ${edit.path.join('.')} has another id`);
        if (list.some((entity) => entity.id === key))
          throw new Refused(`"${key}" is already in ${parent.join('.')}`);
        const at = edit.follows === null ? -1 : list.findIndex((entity) => entity.id === edit.follows);
        // The one it followed may have been removed by somebody else: then the end of the list is the honest place.
        const index = edit.follows !== null && at === -1 ? list.length : at + 1;
        return [...list.slice(0, index), edit.entity, ...list.slice(index)];
      });
    case 'remove':
      return listEdit(document, parent, (list) => list.filter((entity) => entity.id !== key));
    case 'order':
      return listEdit(document, edit.path, (list) => {
        const place = new Map(edit.after.map((one, index) => [one, index]));
        const ordered = list
          .filter((entity) => place.has(entity.id))
          .sort((a, b) => (place.get(a.id) ?? 0) - (place.get(b.id) ?? 0));
        let next = 0;
        return list.map((entity) => (place.has(entity.id) ? (ordered[next++] ?? entity) : entity));
      });
  }
}

/**
 * Applies edits in order. Either all of them apply, or the document is untouched and the reason is returned. What comes out
 * is whatever the edits make of it: it is a design only once it has been read (`readDesign`).
 */
export function applyEdits(document: object, edits: readonly Edit[]): Result<unknown> {
  let current = document as Json;
  for (const edit of edits) {
    try {
      current = applyOne(current, edit);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      return { ok: false, problems: [{ path: edit.path, message: error.message }] };
    }
  }
  return { ok: true, value: current };
}

function invertOne(edit: Edit): Edit {
  switch (edit.op) {
    case 'set': {
      const { before, after, ...rest } = edit;
      return {
        ...rest,
        ...(after === undefined ? {} : { before: after }),
        ...(before === undefined ? {} : { after: before }),
      };
    }
    case 'insert':
      return { ...edit, op: 'remove' };
    case 'remove':
      return { ...edit, op: 'insert' };
    case 'order':
      return { ...edit, before: edit.after, after: edit.before };
  }
}

/** The edits that undo `edits`. */
export function invertEdits(edits: readonly Edit[]): Edit[] {
  return edits.map(invertOne).reverse();
}

const isPrefix = (a: readonly string[], b: readonly string[]): boolean =>
  a.length <= b.length && a.every((part, index) => part === b[index]);

function collide(a: Edit, b: Edit): boolean {
  if (a.op === 'order' || b.op === 'order') return a.op === b.op && a.path.join('\n') === b.path.join('\n');
  return isPrefix(a.path, b.path) || isPrefix(b.path, a.path);
}

const outcome = (edit: Edit): Json | undefined =>
  edit.op === 'set' ? edit.after : edit.op === 'insert' ? edit.entity : undefined;

/** One place that two people changed differently. `undefined` means "not there". */
export interface Conflict {
  readonly path: string[];
  readonly theirs: Json | undefined;
  readonly yours: Json | undefined;
}

/** Where `yours` touches what `theirs` has changed since the two parted, unless both say the same. */
export function conflictsBetween(theirs: readonly Edit[], yours: readonly Edit[]): Conflict[] {
  const conflicts: Conflict[] = [];
  for (const mine of yours) {
    const other = theirs.findLast((edit) => collide(edit, mine));
    if (other === undefined) continue;
    if (
      other.op === mine.op &&
      isPrefix(other.path, mine.path) &&
      isPrefix(mine.path, other.path) &&
      sameJson(outcome(other), outcome(mine))
    )
      continue;
    conflicts.push({ path: [...mine.path], theirs: outcome(other), yours: outcome(mine) });
  }
  return conflicts;
}
