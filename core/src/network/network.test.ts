import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { add, type Complex, complex, magnitude, polar, ZERO } from './complex.ts';
import { deratingFactor, generatorFactor } from './derating.ts';
import { allowedMultiple, allowedTimeS, type EnvelopeStep, worstLevel } from './overload.ts';
import { imbalance, lagging, lineCurrents, lineVoltages, neutralCurrentA, shareOnLines } from './phasors.ts';

const CURVE = [
  { multiple: 1.1, maxS: 60 },
  { multiple: 1.5, maxS: 10 },
  { multiple: 2, maxS: 2 },
];

const load = fc.record({
  watts: fc.double({ min: 1, max: 1e5, noNaN: true }),
  pf: fc.double({ min: 0.05, max: 1, noNaN: true }),
  lines: fc.constantFrom<number[]>([0], [1], [2], [0, 1], [1, 2], [0, 2], [0, 1, 2]),
});
const total = (
  loads: { watts: number; pf: number; lines: number[] }[],
): { sum: Complex; perLine: Complex[] } => {
  const voltages = lineVoltages(3, 230);
  const powers = loads.map((one) => ({ power: lagging(one.watts / one.pf, one.pf), lines: one.lines }));
  const perLine = [0, 1, 2].map((line) =>
    powers.reduce((sum, one) => add(sum, shareOnLines(one.power, one.lines, voltages)[line] ?? ZERO), ZERO),
  );
  return { sum: powers.reduce((sum, one) => add(sum, one.power), ZERO), perLine };
};

describe('phasors', () => {
  it('keeps the apparent power of any mix of loads: the lines together give the sum', () => {
    fc.assert(
      fc.property(fc.array(load, { minLength: 1, maxLength: 20 }), (loads) => {
        const { sum, perLine } = total(loads);
        const lines = perLine.reduce(add, ZERO);
        expect(magnitude(add(lines, complex(-sum.re, -sum.im)))).toBeLessThan(
          1e-9 * Math.max(1, magnitude(sum)),
        );
      }),
    );
  });

  it('obeys the current law: line currents and the neutral sum to zero, and only line-to-neutral loads use the neutral', () => {
    fc.assert(
      fc.property(fc.array(load, { minLength: 1, maxLength: 20 }), (loads) => {
        const voltages = lineVoltages(3, 230);
        const all = neutralCurrentA(lineCurrents(total(loads).perLine, voltages), [0, 0, 0]);
        const single = loads.filter((one) => one.lines.length === 1);
        const alone = neutralCurrentA(lineCurrents(total(single).perLine, voltages), [0, 0, 0]);
        expect(Math.abs(all - alone)).toBeLessThan(1e-6 * Math.max(1, alone));
      }),
    );
  });

  it('gives the same neutral whichever way the lines are turned', () => {
    fc.assert(
      fc.property(fc.array(load, { minLength: 1, maxLength: 10 }), (loads) => {
        const voltages = lineVoltages(3, 230);
        const turned = loads.map((one) => ({ ...one, lines: one.lines.map((line) => (line + 1) % 3) }));
        const size = (list: typeof loads): number =>
          neutralCurrentA(lineCurrents(total(list).perLine, voltages), []);
        expect(size(turned)).toBeCloseTo(size(loads), 5);
      }),
    );
  });

  it.each([
    { name: '2300 W at 230 V: 10 A', lines: 1 as const, loads: [2300, 0, 0], neutral: 10 },
    {
      name: 'two lines 180° apart, 10 A and 4 A: 6 A return',
      lines: 2 as const,
      loads: [2300, 920],
      neutral: 6,
    },
    { name: 'three lines, 10, 10 and 0 A: 10 A', lines: 3 as const, loads: [2300, 2300, 0], neutral: 10 },
    { name: 'three equal lines: nothing', lines: 3 as const, loads: [2300, 2300, 2300], neutral: 0 },
  ])('$name', ({ lines, loads, neutral }) => {
    const voltages = lineVoltages(lines, 230);
    const power = loads.slice(0, lines).map((watts) => complex(watts, 0));
    expect(neutralCurrentA(lineCurrents(power, voltages), [])).toBeCloseTo(neutral, 9);
  });

  it('adds third harmonics on three lines, opposes them on two, returns them whole on one', () => {
    expect(neutralCurrentA([ZERO, ZERO, ZERO], [3, 3, 3])).toBeCloseTo(9, 9);
    expect(neutralCurrentA([ZERO, ZERO], [3, 2])).toBeCloseTo(1, 9);
    expect(neutralCurrentA([ZERO], [3])).toBeCloseTo(3, 9);
    expect(neutralCurrentA([polar(4, 0)], [3])).toBeCloseTo(5, 9);
  });

  it('puts P/√3 on each line of a line-to-line load on three-phase lines', () => {
    const [a, b] = shareOnLines(complex(1000, 0), [0, 1], lineVoltages(3, 1));
    expect(magnitude(a ?? ZERO)).toBeCloseTo(1000 / Math.sqrt(3), 9);
    expect(magnitude(b ?? ZERO)).toBeCloseTo(1000 / Math.sqrt(3), 9);
  });

  it('has a stated imbalance for nothing at all', () => expect(imbalance([0, 0, 0])).toBe(0));
});

describe('overload curve', () => {
  it.each([
    [0.5, Infinity],
    [1, Infinity],
    [1.05, 60],
    [1.1, 60],
    // halfway in log between 1.5 and 2 is √3 = 1.732; halfway in log between 10 and 2 is √20 = 4.472
    [Math.sqrt(3), Math.sqrt(20)],
    [2, 2],
    [2.01, 0],
  ])('allows %f of rating for %f s', (multiple, seconds) =>
    expect(allowedTimeS(CURVE, multiple)).toBeCloseTo(seconds, 9),
  );

  it('reads the same both ways', () => {
    fc.assert(
      fc.property(fc.double({ min: 2, max: 60, noNaN: true }), (seconds) => {
        expect(allowedTimeS(CURVE, allowedMultiple(CURVE, seconds))).toBeCloseTo(seconds, 6);
      }),
    );
  });

  it('never allows more for longer', () => {
    const time = fc.double({ min: 0.001, max: 200, noNaN: true });
    fc.assert(
      fc.property(time, time, (a, b) => {
        expect(allowedMultiple(CURVE, Math.max(a, b))).toBeLessThanOrEqual(
          allowedMultiple(CURVE, Math.min(a, b)),
        );
      }),
    );
  });

  /** The same question asked the slow way: for each level, walk the envelope and measure the stretches above it. */
  const slowWorst = (steps: readonly EnvelopeStep[]): number => {
    let worst = 0;
    for (const { va: level } of steps) {
      let run = 0;
      let longest = 0;
      for (const step of steps) {
        run = step.va >= level ? run + step.durationS : 0;
        longest = Math.max(longest, run);
      }
      worst = Math.max(worst, level / (1000 * allowedMultiple(CURVE, longest)));
    }
    return worst;
  };

  it('agrees with the slow way on any envelope', () => {
    const step = fc.record({
      va: fc.integer({ min: 1, max: 4000 }),
      durationS: fc.integer({ min: 1, max: 30 }),
    });
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) => {
        const worst = worstLevel(steps, CURVE, 1000);
        expect((worst?.va ?? 0) / (worst?.allowedVa ?? 1)).toBeCloseTo(slowWorst(steps), 9);
      }),
      {
        examples: [
          [
            [
              { va: 2000, durationS: 2 },
              { va: 2500, durationS: 1 },
              { va: 2000, durationS: 2 },
            ],
          ],
        ],
      },
    );
  });

  it('has nothing to say of an empty envelope, and everything against a set without rating', () => {
    expect(worstLevel([], CURVE, 1000)).toBeUndefined();
    expect(worstLevel([{ va: 10, durationS: 1 }], CURVE, 0)?.allowedS).toBe(0);
  });
});

describe('derating', () => {
  const points = [
    { ambientC: 40, factor: 1 },
    { ambientC: 60, factor: 0.6 },
  ];
  it.each([
    [-10, 1],
    [40, 1],
    [50, 0.8],
    [60, 0.6],
    [75, 0.6],
  ])('at %f °C leaves %f', (ambientC, factor) =>
    expect(deratingFactor(points, ambientC)).toBeCloseTo(factor, 12),
  );
  it('leaves all of it without points', () => expect(deratingFactor([], 80)).toBe(1));
  it.each([
    { name: 'low and cool', altitudeM: 0, ambientC: 10, factor: 1 },
    { name: '(1 − 0.01 · 9) · (1 − 0.02 · 2) = 0.8736', altitudeM: 1050, ambientC: 35, factor: 0.8736 },
    { name: 'never below nothing', altitudeM: 90000, ambientC: 25, factor: 0 },
  ])('generator: $name', ({ altitudeM, ambientC, factor }) =>
    expect(
      generatorFactor({ per100M: 0.01, aboveM: 150, per5K: 0.02, aboveC: 25 }, altitudeM, ambientC),
    ).toBeCloseTo(factor, 12),
  );
});
