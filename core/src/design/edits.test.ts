import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { baseDesign, deepFreeze, heater, item1 } from '../testkit/designs.ts';
import { applyEdits } from './applyEdits.ts';
import { conflictsBetween } from './conflicts.ts';
import { diff, type Edit, editSchema, invertEdits } from './edits.ts';
import type { Design } from './schema.ts';

/** A random design of the kinds of differences that edits have to carry: added, removed, reordered, changed and absent. */
const item = fc.record(
  { id: fc.constantFrom('a', 'b', 'c', 'd'), runningW: fc.integer({ min: 0, max: 9 }) },
  { requiredKeys: ['id'] },
);
const circuit = fc.record({
  id: fc.constantFrom('p', 'q', 'r', 's', 't'),
  lines: fc.option(fc.subarray(['L1', 'L2', 'L3'] as const, { minLength: 1 }), { nil: undefined }),
  items: fc.uniqueArray(item, { selector: (one) => one.id, maxLength: 4 }),
});
const design: fc.Arbitrary<Design> = fc
  .uniqueArray(circuit, { selector: (one) => one.id, maxLength: 5 })
  .map((circuits) => ({
    ...baseDesign(),
    circuits: circuits.map(({ lines, ...rest }) => ({
      ...rest,
      name: rest.id,
      ...(lines === undefined ? {} : { lines }),
      items: rest.items.map((one) => ({ ...one, name: one.id })),
    })),
  }));

const applied = (from: Design, edits: readonly Edit[]): unknown => {
  const result = applyEdits(from, edits);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return result.value;
};

describe('edits', () => {
  it('lead from any design to any other, and back', () => {
    fc.assert(
      fc.property(design, design, (before, after) => {
        const edits = diff(deepFreeze(before), deepFreeze(after));
        expect(applied(before, edits)).toEqual(after);
        expect(applied(after, invertEdits(edits))).toEqual(before);
        expect(edits.map((edit) => editSchema.parse(JSON.parse(JSON.stringify(edit))))).toEqual(edits);
      }),
    );
  });

  it('come to the same together as one after the other', () => {
    const id = fc.constantFrom('p', 'q', 'r', 's', 't');
    const follows = fc.option(id, { nil: null });
    const edit: fc.Arbitrary<Edit> = fc.oneof(
      fc
        .record({
          id,
          value: fc.option(fc.constantFrom('p', 'x'), { nil: undefined }),
          field: fc.constantFrom('name', 'id'),
        })
        .map(({ id: one, value, field }): Edit => ({
          op: 'set',
          path: ['circuits', one, field],
          ...(value === undefined ? {} : { after: value }),
        })),
      fc.record({ id, follows }).map(({ id: one, follows: after }): Edit => ({
        op: 'insert',
        path: ['circuits', one],
        follows: after,
        entity: { id: one, name: 'new', items: [] },
      })),
      fc.record({ id, item: id }).map(({ id: one, item: two }): Edit => ({
        op: 'insert',
        path: ['circuits', one, 'items', two],
        follows: null,
        entity: { id: two },
      })),
      id.map((one): Edit => ({ op: 'remove', path: ['circuits', one], follows: null, entity: null })),
      fc
        .shuffledSubarray(['p', 'q', 'r', 's'])
        .map((after): Edit => ({ op: 'order', path: ['circuits'], before: [], after })),
    );
    fc.assert(
      fc.property(design, fc.array(edit, { maxLength: 30 }), (from, edits) => {
        const frozen = deepFreeze(from);
        const together = applyEdits(frozen, deepFreeze(edits));
        let now: object = frozen;
        for (const one of edits) {
          const next = applyEdits(now, [one]);
          if (!next.ok) {
            expect(together).toEqual(next);
            return;
          }
          now = next.value as object;
        }
        expect(together).toEqual({ ok: true, value: now });
      }),
    );
  });

  it('mean the first of two rows of one id, however many edits came before', () => {
    const rows = ['a', 'b', 'c'].map((id) => ({ id, name: id, items: [] }));
    const renamed: Edit = { op: 'set', path: ['circuits', 'c', 'id'], after: 'a' };
    const looked: Edit[] = rows.flatMap(() =>
      ['b', 'b', 'b', 'b'].map((id): Edit => ({ op: 'set', path: ['circuits', id, 'name'], after: 'x' })),
    );
    const last: Edit = { op: 'set', path: ['circuits', 'a', 'name'], after: 'meant' };
    const after = applied({ ...baseDesign(), circuits: rows }, [renamed, ...looked, last]) as Design;
    expect(after.circuits.map((one) => one.name)).toEqual(['meant', 'x', 'c']);
  });

  it('leave every row alone that they do not touch', () => {
    const before = deepFreeze({
      ...baseDesign(),
      circuits: [...baseDesign().circuits, { id: 'c2', name: 'Other', items: [heater('i2')] }],
    });
    const after = applied(before, [{ op: 'set', path: ['circuits', 'c1', 'name'], after: 'x' }]) as Design;
    expect(after.circuits[1]).toBe(before.circuits[1]);
    expect(after.stacks).toBe(before.stacks);
  });

  it('are none between a design and itself', () => expect(diff(baseDesign(), baseDesign())).toEqual([]));

  it('name entities by id, not by place', () => {
    const after = baseDesign();
    item1(after).runningW = 100;
    expect(diff(baseDesign(), after)).toEqual([
      { op: 'set', path: ['circuits', 'c1', 'items', 'i1', 'runningW'], before: 2300, after: 100 },
    ]);
  });

  it.each([
    {
      name: 'something that is gone',
      edit: { op: 'set', path: ['circuits', 'zz', 'name'], after: 'x' },
      says: 'no longer anything called "zz"',
    },
    {
      name: 'an id that is taken',
      edit: { op: 'insert', path: ['circuits', 'c1'], follows: null, entity: { id: 'c1' } },
      says: 'already in circuits',
    },
    {
      name: 'an entity under another id',
      edit: { op: 'insert', path: ['circuits', 'c9'], follows: null, entity: { id: 'c8' } },
      says: 'another id',
    },
    {
      name: 'a place below a number',
      edit: { op: 'set', path: ['format', 'x', 'y'], after: 1 },
      says: 'not there any more',
    },
    {
      name: 'the prototype',
      edit: { op: 'set', path: ['site', '__proto__', 'x'], after: 1 },
      says: 'not a field',
    },
  ] as const)('refuse $name, and change nothing', ({ edit, says }) => {
    const before = deepFreeze(baseDesign());
    const result = applyEdits(before, [
      { op: 'set', path: ['name'], before: 'Base', after: 'Other' },
      editSchema.parse(edit),
    ]);
    expect(result).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining(says) as string }],
    });
    expect(before.name).toBe('Base');
  });
});

describe('conflicts', () => {
  const base = baseDesign();
  const changed = (recipe: (draft: Design) => void): Edit[] => {
    const after = baseDesign();
    recipe(after);
    return diff(base, after);
  };
  const watts = (value: number) => changed((d) => void (item1(d).runningW = value));
  const removed = changed((d) => void (d.circuits = []));
  const added = changed((d) => void d.circuits.push({ id: 'c2', name: 'New', items: [heater('x')] }));

  it.each([
    { name: 'the same field with other values', theirs: watts(1), yours: watts(2), count: 1 },
    { name: 'the same field with the same value', theirs: watts(1), yours: watts(1), count: 0 },
    {
      name: 'another field of the same item',
      theirs: watts(1),
      yours: changed((d) => void (item1(d).powerFactor = 0.5)),
      count: 0,
    },
    { name: 'a field of what was removed', theirs: removed, yours: watts(2), count: 1 },
    { name: 'removing what was changed', theirs: watts(1), yours: removed, count: 1 },
    {
      name: 'two rows added',
      theirs: added,
      yours: changed((d) => void d.circuits.push({ id: 'c3', name: 'Mine', items: [] })),
      count: 0,
    },
  ])('$name: $count', ({ theirs, yours, count }) =>
    expect(conflictsBetween(theirs, yours)).toHaveLength(count),
  );

  it('are those that comparing each with each finds', () => {
    const path = fc.array(fc.constantFrom('a', 'b'), { minLength: 1, maxLength: 3 });
    const edit: fc.Arbitrary<Edit> = fc.oneof(
      fc.record({ path, after: fc.integer({ min: 0, max: 2 }) }).map((one): Edit => ({ op: 'set', ...one })),
      path.map((one): Edit => ({ op: 'remove', path: one, follows: null, entity: null })),
      path.map((one): Edit => ({ op: 'order', path: one, before: [], after: [] })),
    );
    const starts = (a: readonly string[], b: readonly string[]) =>
      a.every((part, index) => b[index] === part);
    const clash = (a: Edit, b: Edit): boolean =>
      a.op === 'order' || b.op === 'order'
        ? a.op === b.op && a.path.join('/') === b.path.join('/')
        : starts(a.path, b.path) || starts(b.path, a.path);
    const said = (one: Edit) => (one.op === 'set' ? one.after : undefined);
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 8 }), fc.array(edit, { maxLength: 8 }), (theirs, yours) => {
        const expected = yours.filter((mine) => {
          const other = theirs.findLast((one) => clash(one, mine));
          const same =
            other?.op === mine.op &&
            other.path.join('/') === mine.path.join('/') &&
            said(other) === said(mine);
          return other !== undefined && !same;
        });
        expect(conflictsBetween(theirs, yours).map((one) => one.path)).toEqual(
          expected.map((one) => one.path),
        );
      }),
    );
  });

  it('tell both values', () => {
    expect(conflictsBetween(watts(1), watts(2))[0]).toEqual({
      path: ['circuits', 'c1', 'items', 'i1', 'runningW'],
      theirs: 1,
      yours: 2,
    });
  });
});
