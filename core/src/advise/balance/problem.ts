import { hypot } from '../../values/elementary.ts';
import type { Complex } from '../../network/complex.ts';

/** A circuit that may stand on any one line: where it stands now and what it draws, W + j·var. */
export interface MovableLoad {
  readonly id: string;
  readonly line: number;
  readonly power: Complex;
  /** The same for each hour of the day. */
  readonly hourly: readonly Complex[];
  /** What it draws while all of its items start. */
  readonly surge: Complex;
}

/** What stays where it is, per line, and what may move. */
export interface BalanceProblem {
  readonly base: readonly Complex[];
  readonly baseHourly: readonly (readonly Complex[])[];
  readonly baseSurge: readonly Complex[];
  /** What a VA on each line weighs: above 1 on lines that can carry less than the others. */
  readonly weights: readonly number[];
  readonly loads: readonly MovableLoad[];
}

/** The best that a number of moves can do. `lines` holds the line of each movable load. */
export interface BalanceStep {
  readonly moves: number;
  readonly lines: readonly number[];
  /** Weighted VA of the most loaded line: at the expected peak, in the worst hour, and while everything starts. */
  readonly worstVa: number;
  readonly worstHourVa: number;
  readonly worstSurgeVa: number;
}

export interface BalanceResult {
  /** From no move on, each better than the one before it. */
  readonly steps: readonly BalanceStep[];
  /** No assignment can do better than this. */
  readonly boundVa: number;
  /** Whether each step is proven to be the best for its number of moves, to `RESOLUTION_VA`. */
  readonly exact: boolean;
}

/** Differences below this are of no interest to anybody with a clamp meter. */
export const RESOLUTION_VA = 0.5;

/** Up to this many movable loads every assignment is accounted for. */
export const EXACT_LOADS = 24;

/** Told how much of the work is done, 0 to 1. */
export type Progress = (share: number) => void;

const lineOf = (lines: ArrayLike<number>, index: number): number => lines[index] ?? 0;

function worst(
  base: readonly Complex[],
  weights: readonly number[],
  lines: ArrayLike<number>,
  powerOf: (index: number) => Complex | undefined,
): number {
  const re = base.map((one) => one.re);
  const im = base.map((one) => one.im);
  for (let index = 0; index < lines.length; index += 1) {
    const power = powerOf(index);
    const line = lineOf(lines, index);
    if (power === undefined) continue;
    re[line] = (re[line] ?? 0) + power.re;
    im[line] = (im[line] ?? 0) + power.im;
  }
  return Math.max(...weights.map((weight, line) => weight * hypot(re[line] ?? 0, im[line] ?? 0)));
}

/** All three figures of an assignment. */
export function measureStep(problem: BalanceProblem, lines: ArrayLike<number>): BalanceStep {
  const { loads, weights } = problem;
  const hours = problem.baseHourly.map((base, hour) =>
    worst(base, weights, lines, (index) => loads[index]?.hourly[hour]),
  );
  return {
    moves: loads.filter((load, index) => load.line !== lineOf(lines, index)).length,
    lines: Array.from(lines),
    worstVa: worst(problem.base, weights, lines, (index) => loads[index]?.power),
    worstHourVa: Math.max(0, ...hours),
    worstSurgeVa: worst(problem.baseSurge, weights, lines, (index) => loads[index]?.surge),
  };
}

/** Whether a step is better: a lower line first; where the lines are the same, the worst hour, then the surge. */
export function isBetter(a: BalanceStep, b: BalanceStep): boolean {
  const same = (x: number, y: number): boolean => Math.abs(x - y) <= 1e-6 * Math.max(1, Math.abs(y));
  if (!same(a.worstVa, b.worstVa)) return a.worstVa < b.worstVa;
  if (!same(a.worstHourVa, b.worstHourVa)) return a.worstHourVa < b.worstHourVa;
  return a.worstSurgeVa < b.worstSurgeVa && !same(a.worstSurgeVa, b.worstSurgeVa);
}
