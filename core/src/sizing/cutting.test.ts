import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutPlan, type CutPlan } from './cutting.ts';

const pieces = (...lengths: number[]) => lengths.map((lengthM, at) => ({ id: `p${at}`, lengthM }));
const hand = (...lengths: number[]) => lengths.map((lengthM, at) => ({ id: `r${at}`, lengthM }));

const lengthsOf = ({ cuts }: CutPlan): number[][] =>
  cuts.map((cut) => cut.pieces.map(({ lengthM }) => lengthM).sort((a, b) => b - a));

/** Fewest bought lengths by trying every place for every piece: slow, and sure. */
function bruteForce(lengths: readonly number[], atHand: readonly number[], stock: number): number {
  const room = [...atHand];
  const place = (at: number, bought: number): number => {
    const piece = lengths[at];
    if (piece === undefined) return bought;
    let best = Infinity;
    for (let bin = 0; bin < room.length; bin += 1) {
      if ((room[bin] ?? 0) < piece) continue;
      room[bin] = (room[bin] ?? 0) - piece;
      best = Math.min(best, place(at + 1, bought));
      room[bin] = (room[bin] ?? 0) + piece;
    }
    if (piece > stock) return best;
    room.push(stock - piece);
    best = Math.min(best, place(at + 1, bought + 1));
    room.pop();
    return best;
  };
  return place(0, 0);
}

describe('cutting', () => {
  it('fills each length: 6 + 4 and 5 + 3 + 2 out of two tens, 180 m out of three sixties', () => {
    expect(cutPlan(pieces(6, 5, 4, 3, 2), [], 10)).toMatchObject({ bought: 2, leastBought: 2 });
    // 44 + 8 + 8, 24 + 24 + 6 + 6, 22 + 21 + 17: the longest first, each where it fits first, would want four.
    const plan = cutPlan(pieces(44, 24, 24, 22, 21, 17, 8, 8, 6, 6), [], 60);
    expect(plan).toMatchObject({ bought: 3, leastBought: 3 });
    expect(plan.cuts.every(({ leftM }) => leftM === 0)).toBe(true);
  });

  it('uses what is in the van before it buys', () => {
    const plan = cutPlan(pieces(2.4, 2.4, 1.2), hand(5, 1.3), 10);
    expect(plan.bought).toBe(0);
    expect(lengthsOf(plan).sort((a, b) => a.length - b.length)).toEqual([[1.2], [2.4, 2.4]]);
    expect(plan.cuts.find(({ atHandId }) => atHandId === 'r0')?.leftM).toBeCloseTo(0.2, 9);
  });

  it('says what is longer than anything there is, and cuts the rest', () => {
    const plan = cutPlan(pieces(12, 3), hand(4), 10);
    expect(plan.tooLong.map(({ lengthM }) => lengthM)).toEqual([12]);
    expect(plan.bought).toBe(0);
    // The second of twelve has no place: of it nothing is bought, and nothing has to be.
    expect(cutPlan(pieces(12, 12), hand(12.5), 10)).toMatchObject({ bought: 0, leastBought: 0 });
    expect(cutPlan(pieces(12, 12), hand(12.5), 10).tooLong).toHaveLength(1);
  });

  it('loses a kerf at each cut but the last: 3 · 2 + 2 · 0.01 = 6.02', () => {
    expect(cutPlan(pieces(2, 2, 2), [], 6.02, 0.01).bought).toBe(1);
    expect(cutPlan(pieces(2, 2, 2), [], 6.01, 0.01).bought).toBe(2);
  });

  it('buys no more than trying every way does, and never fewer than its bound', () => {
    const lengths = fc.array(fc.integer({ min: 1, max: 10 }), { minLength: 1, maxLength: 7 });
    fc.assert(
      fc.property(lengths, fc.array(fc.integer({ min: 1, max: 14 }), { maxLength: 2 }), (some, atHand) => {
        const plan = cutPlan(pieces(...some), hand(...atHand), 10);
        expect(plan.bought).toBe(bruteForce(some, atHand, 10));
        expect(plan.leastBought).toBeLessThanOrEqual(plan.bought);
      }),
      { numRuns: 150 },
    );
  });

  it('places every piece once and overfills nothing', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.2, max: 30, noNaN: true }), { maxLength: 60 }),
        fc.array(fc.double({ min: 0.5, max: 20, noNaN: true }), { maxLength: 8 }),
        (some, atHand) => {
          const plan = cutPlan(pieces(...some), hand(...atHand), 25);
          const ids = [...plan.cuts.flatMap((cut) => cut.pieces), ...plan.tooLong].map(({ id }) => id);
          expect(ids.sort()).toEqual(
            pieces(...some)
              .map(({ id }) => id)
              .sort(),
          );
          for (const { pieces: inside, lengthM } of plan.cuts)
            expect(inside.reduce((sum, one) => sum + one.lengthM, 0)).toBeLessThanOrEqual(lengthM + 1e-9);
        },
      ),
    );
  });
});
