import { describe, expect, it } from 'vitest';
import { asin, atan2, cos, exp, log, log10, sin } from './elementary.ts';

/** Numbers spread over a range, the same in every run. */
const over = (from: number, to: number): number[] =>
  Array.from({ length: 4001 }, (_, at) => from + ((to - from) * (at + 0.37 * (at % 7))) / 4003);

/** Two units in the last place or as many as are said; where the value is near nought as much as at a quarter. */
const near = (found: number, wanted: number, units = 2): boolean =>
  Math.abs(found - wanted) <= units * Number.EPSILON * Math.max(Math.abs(wanted), 0.25);

// The engine's own are right to the last place or the one before it: here they are the independent method.
describe.each<[string, (x: number) => number, (x: number) => number, number, number, number]>([
  ['sine', sin, Math.sin, -20, 20, 2],
  ['sine of many turns', sin, Math.sin, 9e5, 1e6, 2],
  ['cosine', cos, Math.cos, -20, 20, 2],
  ['arc sine', asin, Math.asin, -1, 1, 8],
])('%s', (_, own, engines, from, to, units) => {
  it(`is within ${units} units of the last place`, () =>
    expect(over(from, to).filter((x) => !near(own(x), engines(x), units))).toEqual([]));
});

const isNear = (found: number, wanted: number): boolean =>
  Math.abs(found - wanted) <= 2 * Number.EPSILON * Math.abs(wanted);

it.each<[string, (x: number) => number, (x: number) => number, number, number]>([
  ['powers of e', exp, Math.exp, -700, 700],
  ['powers of e near one', exp, Math.exp, -1, 1],
  ['logarithms', log, Math.log, 1e-9, 40],
  ['logarithms of large numbers', log, Math.log, 1e6, 1e300],
])('%s', (_, own, engines, from, to) =>
  expect(over(from, to).filter((x) => !isNear(own(x), engines(x)))).toEqual([]),
);

it('angles of every quarter', () => {
  for (const y of over(-3, 3).filter((_, at) => at % 40 === 0))
    for (const x of [-2, -1, -0.1, 0, 0.3, 1, 5]) expect(near(atan2(y, x), Math.atan2(y, x), 8)).toBe(true);
  expect(atan2(0, 0)).toBe(0);
});

it.each<[string, number, number]>([
  ['sin 0', sin(0), 0],
  ['cos 0', cos(0), 1],
  ['e^0', exp(0), 1],
  ['e^−800', exp(-800), 0],
  ['e^800', exp(800), Infinity],
  ['e^−740, of the smallest numbers there are', exp(-740) / Math.exp(-740), 1],
  ['ln 1', log(1), 0],
  ['ln 0', log(0), -Infinity],
  ['ln −1', log(-1), NaN],
  ['ln ∞', log(Infinity), Infinity],
  ['ln of the smallest number', log(5e-324), Math.log(5e-324)],
  ['log 1000', log10(1000), 3],
  ['log 0.01', log10(0.01), -2],
])('%s', (_, found, wanted) => expect(found).toBe(wanted));
