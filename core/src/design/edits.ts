import { z } from 'zod';

/** The longest list of ids that can be put into another order. */
const MOST_ORDERED = 10_000;

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
    before: z.array(z.string()).max(MOST_ORDERED),
    after: z.array(z.string()).max(MOST_ORDERED),
  }),
]);
export type Edit = z.infer<typeof editSchema>;
export type Json = z.core.util.JSONType;
export type JsonObject = Record<string, Json>;
export type Entity = JsonObject & { id: string };

export function isObject(value: Json | undefined): value is JsonObject {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
export function isEntity(value: Json | undefined): value is Entity {
  return isObject(value) && typeof value.id === 'string';
}
export function isEntityList(value: Json | undefined): value is Entity[] {
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
