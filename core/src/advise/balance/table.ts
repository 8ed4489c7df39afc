import { hypot } from '../../values/elementary.ts';
import type { BalanceProblem, MovableLoad } from './problem.ts';

/** A problem as plain numbers, its loads sorted from large to small, for loops that run millions of times. */
export interface Table {
  readonly lineCount: number;
  readonly count: number;
  /** Place of each sorted load in the problem. */
  readonly order: readonly number[];
  readonly re: Float64Array;
  readonly im: Float64Array;
  readonly va: Float64Array;
  readonly home: Uint8Array;
  /** Loads of the same kind can stand in for each other in every respect. */
  readonly kind: Int32Array;
  readonly weights: Float64Array;
  readonly baseRe: Float64Array;
  readonly baseIm: Float64Array;
  /** Sums with every load where it stands now. */
  readonly startRe: Float64Array;
  readonly startIm: Float64Array;
  /** Along the direction of the whole load: no line can carry less VA than its part in this direction. */
  readonly along: Float64Array;
  readonly baseAlong: Float64Array;
}

function kindsOf(loads: readonly MovableLoad[]): Int32Array {
  const numbers = new Map<string, number>();
  return Int32Array.from(loads, ({ id: _id, ...load }) => {
    const key = JSON.stringify(load);
    const number = numbers.get(key) ?? numbers.size;
    numbers.set(key, number);
    return number;
  });
}

export function tableOf(problem: BalanceProblem): Table {
  const order = problem.loads
    .map((load, index) => ({ index, va: hypot(load.power.re, load.power.im) }))
    .sort((a, b) => b.va - a.va || a.index - b.index)
    .map((one) => one.index);
  const sorted = order.flatMap((index) => problem.loads[index] ?? []);
  const re = Float64Array.from(sorted, (load) => load.power.re);
  const im = Float64Array.from(sorted, (load) => load.power.im);
  const baseRe = Float64Array.from(problem.base, (one) => one.re);
  const baseIm = Float64Array.from(problem.base, (one) => one.im);
  const startRe = Float64Array.from(baseRe);
  const startIm = Float64Array.from(baseIm);
  sorted.forEach((load) => {
    startRe[load.line] = (startRe[load.line] ?? 0) + load.power.re;
    startIm[load.line] = (startIm[load.line] ?? 0) + load.power.im;
  });
  const sumRe = startRe.reduce((sum, one) => sum + one, 0);
  const sumIm = startIm.reduce((sum, one) => sum + one, 0);
  const size = hypot(sumRe, sumIm);
  const toward = size > 0 ? { re: sumRe / size, im: sumIm / size } : { re: 1, im: 0 };
  const project = (a: Float64Array, b: Float64Array): Float64Array =>
    a.map((one, index) => one * toward.re + (b[index] ?? 0) * toward.im);
  return {
    lineCount: problem.base.length,
    count: sorted.length,
    order,
    re,
    im,
    va: Float64Array.from(sorted, (load) => hypot(load.power.re, load.power.im)),
    home: Uint8Array.from(sorted, (load) => load.line),
    kind: kindsOf(sorted),
    weights: Float64Array.from(problem.weights),
    baseRe,
    baseIm,
    startRe,
    startIm,
    along: project(re, im),
    baseAlong: project(baseRe, baseIm),
  };
}

/** Puts an assignment of the sorted loads back into the order of the problem. */
export function inProblemOrder(table: Table, sorted: ArrayLike<number>): number[] {
  const lines = new Array<number>(table.count).fill(0);
  table.order.forEach((place, index) => {
    lines[place] = sorted[index] ?? 0;
  });
  return lines;
}
