import { describe, expect, it } from 'vitest';
import { addLoad, baseDesign, circuit1, stack1, threePhase } from '../../testkit/designs.ts';
import { setOf } from '../../testkit/sets.ts';
import { remainsWithout } from './remains.ts';

function remainsOf(units: [number, number, number], lost: string) {
  const design = baseDesign();
  threePhase(design, units);
  circuit1(design).lines = ['L1'];
  addLoad(design, 'c2', ['L2']);
  addLoad(design, 'c3', ['L1', 'L2', 'L3']);
  const found = remainsWithout(setOf(design), lost);
  if (!found.known) throw new Error(JSON.stringify(found.missing));
  return found.value;
}

describe('what remains when a unit is lost', () => {
  // One unit of 5000 VA stays on L1; L2 and L3 keep two: 2 · 5000 / 1.05 = 9523.8 VA.
  it('with another unit on the line all is carried', () => {
    const { lines, darkLines, carriedCircuits } = remainsOf([2, 2, 2], 'L1-1');
    expect(lines.map(({ line, usableVa }) => [line, Math.round(usableVa)])).toEqual([
      ['L1', 5000],
      ['L2', 9524],
      ['L3', 9524],
    ]);
    expect([darkLines, carriedCircuits]).toEqual([[], 3]);
  });

  // L2 is dark: its heater and the three-phase one go with it. What stays is 2300 W for 12 h of the day, 1150 W on average:
  // 400 Ah · 51.2 V · (0.5 − 0.1) = 8192 Wh over 1150 / 0.94 + 2 units · 50 W.
  it('without one the line is dark with all that needs it, and the rest lasts longer', () => {
    const { darkLines, darkCircuits, hours } = remainsOf([1, 1, 1], 'L2-1');
    expect([darkLines, darkCircuits]).toEqual([['L2'], ['c2', 'c3']]);
    expect(hours?.known === true ? hours.value : 0).toBeCloseTo(8192 / (1150 / 0.94 + 100), 1);
  });

  it('a set that stops carries nothing', () => {
    const design = baseDesign();
    Object.assign(stack1(design), { inverterTypeId: 'hybrid-3k-1ph', arrangement: 'parallel-single-phase' });
    stack1(design).units = [{ id: 'u1' }, { id: 'u2' }];
    const found = remainsWithout(setOf(design), 'u1');
    expect(found.known && [found.value.stops, found.value.lines, found.value.hours]).toEqual([
      true,
      [],
      { known: true, value: 0 },
    ]);
  });
});
