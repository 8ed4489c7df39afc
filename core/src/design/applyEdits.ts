import type { Result } from '../values/problem.ts';
import {
  type Edit,
  type Entity,
  isEntity,
  isEntityList,
  isObject,
  type Json,
  type JsonObject,
} from './edits.ts';

class Refused extends Error {}

/** So many rows of a list are looked for one by one; from there on it is noted where each is. */
const FEW_LOOKS = 8;

/** Lists that were found to hold nothing but things with ids. Documents are not changed once they are made, so it stays true. */
const knownLists = new WeakSet<object>();

function isKnownList(value: Json | undefined): value is Entity[] {
  if (!Array.isArray(value)) return false;
  if (knownLists.has(value)) return true;
  if (!isEntityList(value)) return false;
  knownLists.add(value);
  return true;
}

type Container = JsonObject | Entity[];

/**
 * A document that is being changed. What an edit touches is copied once and then changed in place, so that a batch costs what it
 * touches and not the document again for each edit; whatever is not touched stays the same object as before.
 */
class Draft {
  private root: Json;
  /** Copies of this draft: nobody else has them, so they may be changed. */
  private readonly own = new Set<object>();
  /** Copied lists of things with ids: which ids are in each, and where each was last seen. */
  private readonly lists = new Map<object, Map<string, number>>();
  private readonly looks = new Map<object, number>();

  constructor(document: Json) {
    this.root = document;
  }

  get result(): Json {
    return this.root;
  }

  private owned<T extends Container>(value: T): T {
    if (this.own.has(value)) return value;
    const copy = (Array.isArray(value) ? value.slice() : Object.assign({}, value)) as T;
    this.own.add(copy);
    if (knownLists.has(value)) knownLists.add(copy);
    return copy;
  }

  /** Where an id is in a copied list; -1 where it is not there. */
  private place(list: Entity[], id: string): number {
    const places = this.places(list);
    if (places === undefined) return list.findIndex((entity) => entity.id === id);
    const known = places.get(id);
    if (known === undefined || list[known]?.id === id) return known ?? -1;
    // Rows have come or gone before it since.
    const found = list.findIndex((entity) => entity.id === id);
    places.set(id, found);
    return found;
  }

  private places(list: Entity[]): Map<string, number> | undefined {
    const known = this.lists.get(list);
    if (known !== undefined) return known;
    const looks = (this.looks.get(list) ?? 0) + 1;
    this.looks.set(list, looks);
    if (looks <= FEW_LOOKS) return undefined;
    const places = new Map(list.map((entity, index) => [entity.id, index]));
    // Two rows of one id (no design, but an edit may make it on the way): the first is meant, which only looking tells.
    if (places.size < list.length) return undefined;
    this.lists.set(list, places);
    return places;
  }

  /** The copied container at a path, with everything above it copied. */
  private reach(path: readonly string[]): Container {
    let at = this.container(this.root, []);
    this.root = at;
    path.forEach((key, depth) => {
      const where = path.slice(0, depth + 1);
      const next = this.container(this.get(at, key, where), where);
      this.put(at, key, next);
      at = next;
    });
    return at;
  }

  private container(value: Json | undefined, path: readonly string[]): Container {
    if (isKnownList(value) || isObject(value)) return this.owned(value);
    throw new Refused(`${path.join('.')} is not there any more`);
  }

  private get(from: Container, key: string, path: readonly string[]): Json | undefined {
    if (Array.isArray(from)) {
      const entity = from[this.place(from, key)];
      if (entity === undefined)
        throw new Refused(`there is no longer anything called "${key}" at ${path.slice(0, -1).join('.')}`);
      return entity;
    }
    if (key === '__proto__') throw new Refused('"__proto__" is not a field');
    return Object.hasOwn(from, key) ? from[key] : undefined;
  }

  private put(into: Container, key: string, value: Json): void {
    if (Array.isArray(into)) into[this.place(into, key)] = value as Entity;
    else into[key] = value;
  }

  set(path: readonly string[], after: Json | undefined): void {
    const target = this.reach(path.slice(0, -1));
    const key = path.at(-1) ?? '';
    this.get(target, key, path);
    if (after !== undefined) {
      this.put(target, key, after);
    } else if (Array.isArray(target)) {
      throw new Refused(`"${key}" of ${path.slice(0, -1).join('.')} can be removed, not emptied`);
    } else {
      Reflect.deleteProperty(target, key);
    }
    // Such an edit may give a row another id, or none.
    if (key !== 'id' && !Array.isArray(target)) return;
    this.lists.clear();
    for (const one of this.own) knownLists.delete(one);
  }

  private list(path: readonly string[]): Entity[] {
    const where = path.join('.');
    const key = path.at(-1);
    const parent = this.reach(path.slice(0, -1));
    const value = key === undefined ? undefined : this.get(parent, key, path);
    if (key === undefined || !isKnownList(value))
      throw new Refused(`${where} is not a list of things with ids`);
    const list = this.owned(value);
    this.put(parent, key, list);
    return list;
  }

  insert(path: readonly string[], follows: string | null, entity: Json): void {
    const parent = path.slice(0, -1);
    const id = path.at(-1) ?? '';
    const list = this.list(parent);
    if (!isEntity(entity) || entity.id !== id)
      throw new Refused(`what is inserted at ${path.join('.')} has another id`);
    if (this.place(list, id) !== -1) throw new Refused(`"${id}" is already in ${parent.join('.')}`);
    const at = follows === null ? -1 : this.place(list, follows);
    // The one it followed may have been removed by somebody else: then the end of the list is the honest place.
    const index = follows !== null && at === -1 ? list.length : at + 1;
    list.splice(index, 0, entity);
    this.lists.get(list)?.set(id, index);
  }

  remove(path: readonly string[]): void {
    const list = this.list(path.slice(0, -1));
    const id = path.at(-1) ?? '';
    const at = this.place(list, id);
    if (at !== -1) list.splice(at, 1);
    this.lists.get(list)?.delete(id);
  }

  order(path: readonly string[], after: readonly string[]): void {
    const list = this.list(path);
    const place = new Map(after.map((one, index) => [one, index]));
    const ordered = list
      .filter((entity) => place.has(entity.id))
      .sort((a, b) => (place.get(a.id) ?? 0) - (place.get(b.id) ?? 0));
    let next = 0;
    list.forEach((entity, index) => {
      if (place.has(entity.id)) list[index] = ordered[next++] ?? entity;
    });
    this.lists.delete(list);
  }
}

function applyOne(draft: Draft, edit: Edit): void {
  switch (edit.op) {
    case 'set':
      draft.set(edit.path, edit.after);
      break;
    case 'insert':
      draft.insert(edit.path, edit.follows, edit.entity);
      break;
    case 'remove':
      draft.remove(edit.path);
      break;
    case 'order':
      draft.order(edit.path, edit.after);
  }
}

/**
 * Applies edits in order. Either all of them apply, or the document is untouched and the reason is returned. What comes out
 * is whatever the edits make of it: it is a design only once it has been read (`readDesign`).
 */
export function applyEdits(document: object, edits: readonly Edit[]): Result<unknown> {
  const draft = new Draft(document as Json);
  for (const edit of edits) {
    try {
      applyOne(draft, edit);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      return { ok: false, problems: [{ path: edit.path, message: error.message }] };
    }
  }
  return { ok: true, value: draft.result };
}
