import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { Route } from '../../design/place.ts';
import type { Design } from '../../design/schema.ts';
import { deliveryLines } from '../delivery.ts';
import { baseDesign, stack1 } from '../../testkit/designs.ts';
import { addWall, boxAt, unitAt } from '../../testkit/wall.ts';
import { compile } from '../compile.ts';
import { drillingHoles } from './wall.ts';

const designOf = (edit: (design: Design) => void): Design => {
  const design = baseDesign();
  edit(design);
  return design;
};
const route = (id: string, over: Partial<Route> = {}): Route => ({
  id,
  fromId: 'w1',
  toId: 'w2',
  points: [],
  ...over,
});

describe('routes', () => {
  const lengths = (...routes: Route[]): (number | undefined)[] =>
    compile(
      designOf((d) => void addWall(d, { mounted: [unitAt(1, 1), boxAt(2, 0.13, 0.46, 0.3)], routes })),
      SAMPLE_TYPES,
    ).routes.map(({ cutM }) => (cutM.known ? cutM.value : undefined));

  it('run from centre to centre, with the loop and the slack: (1 + 1 + 0.3) · 1.05', () => {
    // Centres (1.23, 1.28) and (2.23, 0.28), by way of (2.23, 1.28): 1 m across and 1 m down.
    expect(lengths(route('r', { points: [{ xM: 2.23, yM: 1.28 }] }))[0]).toBeCloseTo(2.3 * 1.05, 9);
    expect(lengths(route('r'))[0]).toBeCloseTo((Math.SQRT2 + 0.3) * 1.05, 9);
    expect(lengths(route('r', { serviceLoopM: 1 }))[0]).toBeCloseTo((Math.SQRT2 + 1) * 1.05, 9);
  });

  it('of an equal set are cut to the longest, and are not known while one of them is not', () => {
    const long = route('a', { points: [{ xM: 2.23, yM: 1.28 }], equalSet: 'x' });
    const [first, second, other] = lengths(long, route('b', { equalSet: 'x' }), route('c'));
    expect(second).toBe(first);
    expect(other).not.toBe(first);
    expect(lengths(long, route('b', { equalSet: 'x', toId: 'gone' }))).toEqual([undefined, undefined]);
  });
});

describe('drilling', () => {
  it('gives every hole from the datum, top row first', () => {
    const { wall } = compile(
      designOf((d) => void addWall(d)),
      SAMPLE_TYPES,
    );
    // 60 mm in from both edges, at a quarter and three quarters of 0.56 m.
    expect(drillingHoles(wall).map((hole) => [hole.xM.toFixed(2), hole.yM.toFixed(2)])).toEqual([
      ['1.06', '1.42'],
      ['1.40', '1.42'],
      ['1.06', '1.14'],
      ['1.40', '1.14'],
    ]);
  });
});

describe('delivery', () => {
  const lines = deliveryLines(
    designOf((d) => stack1(d).units.push({ id: 'u2' })),
    SAMPLE_TYPES,
  );
  const find = (id: string) => lines.find((line) => line.id === id);

  it('lists what the design needs, with people for the lift', () => {
    expect(find('unit-s-u2')?.details).toContain('24 kg: one person lifts');
    expect(find('module-s-m4')?.details).toContain('44 kg: two people lift');
    expect(find('parallel-s')?.details[0]).toContain('1 link');
    expect(find('people-lift')?.what).toBe('Two people for the lift');
    expect(new Set(lines.map((line) => line.id)).size).toBe(lines.length);
  });

  it('has nothing to ask for before there is a stack', () =>
    expect(deliveryLines({ ...baseDesign(), stacks: [] }, SAMPLE_TYPES)).toEqual([]));
});
