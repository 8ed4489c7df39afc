import fc from 'fast-check';
import { expect, it } from 'vitest';
import { Arena } from './arena.ts';
import type { Conductances } from './conductances.ts';
import { factorLadder } from './ladder.ts';
import { factorSkyline } from './skyline.ts';

const solved = (
  factor: typeof factorLadder,
  conductances: Conductances,
  fed: readonly number[],
): { readonly vanished: number; readonly x: readonly number[] } => {
  const { vanished, substitute } = factor(conductances, Arena.ofWords(8 * conductances.places));
  const x = Float64Array.from([0, ...fed]);
  if (vanished === 0) substitute(x);
  return { vanished, x: [...x] };
};

/** Ladders of any length: some rungs and rails missing, some places joined twice, some to the reference. */
const ladder = fc
  .integer({ min: 2, max: 40 })
  .chain((places) =>
    fc.record({
      places: fc.constant(places),
      links: fc.array(
        fc.record({
          at: fc.integer({ min: 1, max: places - 1 }),
          back: fc.integer({ min: 1, max: 2 }),
          siemens: fc.double({ min: 1e-2, max: 1e4, noNaN: true }),
          isReversed: fc.boolean(),
        }),
        { minLength: places, maxLength: 3 * places },
      ),
      fed: fc.array(fc.double({ min: -100, max: 100, noNaN: true }), {
        minLength: places - 1,
        maxLength: places - 1,
      }),
    }),
  )
  .map(({ places, links, fed }) => {
    const ends = links.map(({ at, back, isReversed }) => {
      const pair = [at, Math.max(0, at - back)];
      return isReversed ? pair.reverse() : pair;
    });
    const conductances = {
      places,
      from: Int32Array.from(ends.map(([a = 0]) => a)),
      to: Int32Array.from(ends.map(([, b = 0]) => b)),
      siemens: Float64Array.from(links.map((one) => one.siemens)),
    };
    return { conductances, fed };
  });

it('a ladder is solved as any network is, and what hangs in the air is found at the same place', () => {
  fc.assert(
    fc.property(ladder, ({ conductances, fed }) => {
      const quick = solved(factorLadder, conductances, fed);
      const general = solved(factorSkyline, conductances, fed);
      expect(quick.vanished).toBe(general.vanished);
      const size = Math.max(1e-9, ...general.x.map(Math.abs));
      quick.x.forEach((value, at) => expect((value - (general.x[at] ?? 0)) / size).toBeCloseTo(0, 6));
    }),
  );
});
