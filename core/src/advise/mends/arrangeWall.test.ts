import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { analyse } from '../../checks/analyse.ts';
import { analysisCauses } from '../../checks/causes.ts';
import { applyEdits } from '../../design/applyEdits.ts';
import { readDesign } from '../../design/read.ts';
import type { Design } from '../../design/schema.ts';
import { baseDesign } from '../../testkit/designs.ts';
import { addWall, boxAt, obstacleAt, unitAt } from '../../testkit/wall.ts';
import { mendsOf } from './mendsOf.ts';

type Wall = NonNullable<Parameters<typeof addWall>[1]>;

/** Where things hang after the wall was arranged, by id; undefined where that is not offered. */
function arranged(
  wall: Wall,
): { readonly design: Design; readonly at: Record<string, [number, number]> } | undefined {
  const design = baseDesign();
  addWall(design, wall);
  const analysis = analyse(design, SAMPLE_TYPES);
  const cause = analysisCauses(analysis).find(({ worst }) => worst.check === 'place.clearance');
  const mend = cause && mendsOf(cause, analysis, SAMPLE_TYPES).find(({ id }) => id === 'arrange-wall');
  if (mend === undefined) return undefined;
  const applied = applyEdits(design, mend.edits);
  const read = applied.ok ? readDesign(applied.value, SAMPLE_TYPES) : applied;
  if (!read.ok) throw new Error(read.problems[0]?.message);
  const mounted = read.value.place?.mounted ?? [];
  return {
    design: read.value,
    at: Object.fromEntries(mounted.map(({ id, xM, yM }): [string, [number, number]] => [id, [xM, yM]])),
  };
}

const box = (id: string, xM: number, yM: number, widthM: number, heightM: number) => ({
  ...boxAt(xM, yM, widthM, heightM),
  id,
});

/** The unit is 0.46 m by 0.56 m and asks for 0.2 m at its sides, 0.3 m above and 0.5 m below. */
describe('the wall is arranged', () => {
  it.each([
    {
      name: 'a box 40 mm from the unit: 1 + 0.46 + 0.2 = 1.66',
      wall: { wall: { widthM: 4, heightM: 2.4 }, mounted: [unitAt(1, 1), box('b', 1.5, 1, 0.5, 0.3)] },
      at: { w1: [1, 1], b: [1.66, 1] },
    },
    {
      name: 'at the end of the wall both go back: 2.4 − 0.5 = 1.9, 1.9 − 0.2 − 0.46 = 1.24',
      wall: { wall: { widthM: 2.4, heightM: 2.4 }, mounted: [unitAt(1.3, 1), box('b', 1.8, 1, 0.5, 0.3)] },
      at: { w1: [1.24, 1], b: [1.9, 1] },
    },
    {
      name: 'a chain of three: each past the one before it, and the third stays where it has room',
      wall: {
        wall: { widthM: 4, heightM: 2.4 },
        mounted: [box('a', 0.5, 1, 0.5, 0.3), unitAt(1.1, 1), box('b', 3, 1, 0.5, 0.3)],
      },
      // 0.5 + 0.5 + 0.2 = 1.2.
      at: { a: [0.5, 1], w1: [1.2, 1], b: [3, 1] },
    },
    {
      name: 'under a box in the same place of the wall: 1 + 0.56 + 0.3 = 1.86',
      wall: { wall: { widthM: 4, heightM: 2.6 }, mounted: [unitAt(1, 1), box('b', 1.1, 1.7, 0.3, 0.3)] },
      at: { w1: [1, 1], b: [1.1, 1.86] },
    },
    {
      name: 'past a door, which stays: 1.5 + 0.4 + 0.2 = 2.1',
      wall: {
        wall: { widthM: 4, heightM: 2.4 },
        mounted: [box('a', 0.2, 1, 0.7, 0.3), unitAt(1, 1)],
        obstacles: [{ ...obstacleAt('door', 1.5, 0), widthM: 0.4, heightM: 2 }],
      },
      at: { a: [0.2, 1], w1: [2.1, 1] },
    },
  ])('$name', ({ wall, at }) => expect(arranged(wall as Wall)?.at).toEqual(at));

  it('is not offered where there is no room: 0.2 + 0.46 + 0.2 + 0.5 = 1.36 m on 1.2 m', () =>
    expect(
      arranged({
        wall: { widthM: 1.2, heightM: 2.4 },
        mounted: [unitAt(0.2, 1), box('b', 0.7, 1, 0.5, 0.3)],
      }),
    ).toBeUndefined());

  it('leaves nothing too near, whatever hangs there', () => {
    const place = fc.record({ x: fc.integer({ min: 0, max: 50 }), y: fc.integer({ min: 5, max: 15 }) });
    fc.assert(
      fc.property(place, fc.array(place, { minLength: 1, maxLength: 5 }), (unit, boxes) => {
        const found = arranged({
          wall: { widthM: 6, heightM: 3 },
          mounted: [
            unitAt(unit.x / 10, unit.y / 10),
            ...boxes.map(({ x, y }, index) => box(`b${index}`, x / 10, y / 10, 0.4, 0.3)),
          ],
        });
        if (found === undefined) return;
        const { findings } = analyse(found.design, SAMPLE_TYPES);
        const near = findings.filter(
          ({ check, state }) =>
            state === 'over' && (check === 'place.clearance' || check === 'place.overlap'),
        );
        expect(near).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});
