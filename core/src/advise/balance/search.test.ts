import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type BalanceProblem, EXACT_LOADS, measureStep } from './problem.ts';
import { balanceSearch } from './search.ts';

const ZERO = { re: 0, im: 0 };

function problemOf(
  loads: readonly (readonly [line: number, watts: number, vars?: number])[],
  base: readonly number[] = [0, 0, 0],
  weights: readonly number[] = base.map(() => 1),
): BalanceProblem {
  return {
    base: base.map((re) => ({ re, im: 0 })),
    baseHourly: [],
    baseSurge: base.map(() => ZERO),
    weights,
    loads: loads.map(([line, re, im = 0], index) => ({
      id: `c${index}`,
      line,
      power: { re, im },
      hourly: [],
      surge: { re: 6 * re, im: 6 * im },
    })),
  };
}

/** Every assignment, tried one by one: the best for each exact number of moves. */
function bruteForce(problem: BalanceProblem): number[] {
  const lineCount = problem.base.length;
  const best: number[] = new Array<number>(problem.loads.length + 1).fill(Infinity);
  for (let code = 0; code < lineCount ** problem.loads.length; code += 1) {
    const lines = problem.loads.map((_, index) => Math.floor(code / lineCount ** index) % lineCount);
    const step = measureStep(problem, lines);
    best[step.moves] = Math.min(best[step.moves] ?? Infinity, step.worstVa);
  }
  return best.map((_, moves) => Math.min(...best.slice(0, moves + 1)));
}

const anyLoad = (lineCount: number) =>
  fc.tuple(fc.nat(lineCount - 1), fc.integer({ min: 1, max: 3000 }), fc.integer({ min: 0, max: 2000 }));

describe('balance', () => {
  it('by hand: 4, 3, 2, 1 kW on one of two lines: one move halves nothing better than 6, two moves give 5', () => {
    const found = balanceSearch(
      problemOf(
        [
          [0, 4000],
          [0, 3000],
          [0, 2000],
          [0, 1000],
        ],
        [0, 0],
      ),
    );
    expect(found.steps.map((step) => [step.moves, step.worstVa])).toEqual([
      [0, 10000],
      [1, 6000],
      [2, 5000],
    ]);
    expect(found.boundVa).toBeCloseTo(5000, 6);
    expect(found.exact).toBe(true);
  });

  it.each([2, 3])(
    'agrees with trying every assignment, for every number of moves, on %i lines',
    (lineCount) => {
      fc.assert(
        fc.property(
          fc.array(anyLoad(lineCount), { minLength: 1, maxLength: lineCount === 2 ? 9 : 7 }),
          fc.array(fc.nat(4000), { minLength: lineCount, maxLength: lineCount }),
          (loads, base) => {
            const problem = problemOf(loads, base);
            const found = balanceSearch(problem);
            const best = bruteForce(problem);
            expect(found.exact).toBe(true);
            best.forEach((worst, moves) => {
              const offered = found.steps.findLast((step) => step.moves <= moves)?.worstVa ?? Infinity;
              expect(offered).toBeGreaterThanOrEqual(worst - 1e-6);
              expect(offered).toBeLessThanOrEqual(worst + 0.5 + 1e-6);
            });
            expect(found.boundVa).toBeLessThanOrEqual((best.at(-1) ?? 0) + 1e-6);
            for (const step of found.steps) expect(measureStep(problem, step.lines)).toEqual(step);
          },
        ),
        { numRuns: 60 },
      );
    },
  );

  it('lowers the line that can carry less first', () => {
    const loads = [
      [0, 1000],
      [0, 1000],
      [0, 1000],
    ] as const;
    const even = balanceSearch(problemOf(loads, [0, 0]));
    const uneven = balanceSearch(problemOf(loads, [0, 0], [2, 0.5]));
    expect(even.steps.at(-1)?.moves).toBe(1);
    expect(uneven.steps.at(-1)?.lines).toEqual([1, 1, 1]);
  });

  it('decides by the worst hour between assignments that load the lines alike', () => {
    const day = Array.from({ length: 24 }, (_, hour) => ({ re: hour < 12 ? 1000 : 0, im: 0 }));
    const night = Array.from({ length: 24 }, (_, hour) => ({ re: hour < 12 ? 0 : 1000, im: 0 }));
    const problem = problemOf(
      [
        [0, 1000],
        [0, 1000],
        [0, 1000],
        [0, 1000],
      ],
      [0, 0],
    );
    const timed: BalanceProblem = {
      ...problem,
      baseHourly: day.map(() => [ZERO, ZERO]),
      loads: problem.loads.map((load, index) => ({ ...load, hourly: index < 2 ? day : night })),
    };
    const best = balanceSearch(timed).steps.at(-1);
    expect([best?.moves, best?.worstVa, best?.worstHourVa]).toEqual([2, 2000, 1000]);
  });

  it(`is proven for ${EXACT_LOADS} loads, and within 2 % of its bound for 60`, () => {
    let seed = 7;
    const next = (): number => (seed = (seed * 1664525 + 1013904223) % 4294967296) / 4294967296;
    const loads = (count: number): [number, number][] =>
      Array.from({ length: count }, () => [Math.floor(next() * 3), 100 + Math.floor(next() * 2000)]);
    expect(balanceSearch(problemOf(loads(EXACT_LOADS))).exact).toBe(true);
    const many = balanceSearch(problemOf(loads(60)));
    expect((many.steps.at(-1)?.worstVa ?? Infinity) / many.boundVa).toBeLessThan(1.02);
  });

  it('has nothing to offer where nothing may move', () => {
    const found = balanceSearch(problemOf([], [100, 200, 300]));
    expect(found.steps.map((step) => step.moves)).toEqual([0]);
    expect(found.boundVa).toBe(300);
  });
});
