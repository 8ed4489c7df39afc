import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { compile } from '../installation/compile.ts';
import { addLoad, baseDesign } from '../testkit/designs.ts';
import { nearestBelow, realLoad } from './realLoad.ts';

const named = (...watts: number[]) => watts.map((one, at) => ({ name: `c${at}`, watts: one }));
const sumOf = (chosen: readonly { watts: number }[]): number =>
  chosen.reduce((sum, { watts }) => sum + watts, 0);

describe('a test load from the circuits of the building', () => {
  it.each([
    // 2300 + 1200 = 3500 of 3600; 2300 + 1250 would be 3550, and is nearer.
    [[2300, 1200, 1250], 3600, 3550],
    // None fits below.
    [[2300, 1200], 1000, 0],
    // One of 3500 before two that make the same.
    [[1500, 2000, 3500], 3500, 3500],
  ])('of %j W comes nearest to %d W from below: %d W', (watts, most, sum) => {
    const chosen = nearestBelow(named(...watts), most);
    expect(sumOf(chosen)).toBe(sum);
    if (sum === 3500) expect(chosen.length).toBe(1);
  });

  it('is what trying every choice finds, to the step of 10 W, and never more than asked', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 200 }), { maxLength: 9 }),
        fc.integer({ min: 1, max: 600 }),
        (tens, mostTens) => {
          const circuits = named(...tens.map((ten) => ten * 10));
          let best = 0;
          for (let choice = 0; choice < 2 ** tens.length; choice += 1) {
            const sum = sumOf(circuits.filter((_, at) => (choice & (1 << at)) !== 0));
            if (sum <= mostTens * 10 && sum > best) best = sum;
          }
          expect(sumOf(nearestBelow(circuits, mostTens * 10))).toBe(best);
        },
      ),
    );
  });

  it('names the circuits and what is left, and takes no motor, no low power factor and nothing that is not backed up', () => {
    const design = baseDesign();
    addLoad(design, 'Kettle', ['L1'], { runningW: 1800 });
    addLoad(design, 'Pump', ['L1'], { runningW: 900, powerFactor: 0.8 });
    addLoad(design, 'Saw', ['L1'], { runningW: 900, startClass: 'compressor' });
    const installation = compile(design, SAMPLE_TYPES);
    const [compiled] = installation.stacks;
    if (compiled === undefined) throw new Error('It has a set.');
    // 2300 + 1800 = 4100 of 4500.
    expect(realLoad(installation, compiled, ['L1'], 4500)).toEqual([
      'From the building itself on L1: Heat and Kettle, all of it on, come to 4.1 kW; the load bank adds 400 W.',
    ]);
    expect(realLoad(installation, compiled, ['L1'], 2300)).toEqual([
      'From the building itself on L1: Heat, all of it on, comes to 2.3 kW.',
    ]);
    // Less than half of what is wanted is not worth switching for.
    expect(realLoad(installation, compiled, ['L1'], 9000)).toEqual([]);
    expect(realLoad(installation, compiled, ['L1'], 1000)).toEqual([]);
  });
});
