import { log } from '../values/elementary.ts';
import { power } from '../values/power.ts';
/** One point of an overload curve: the longest time at a multiple of rated VA. */
export interface OverloadPoint {
  readonly multiple: number;
  readonly maxS: number;
}

/** A stretch of a surge envelope: apparent power held for a time. */
export interface EnvelopeStep {
  readonly va: number;
  readonly durationS: number;
}

/**
 * Longest time at a multiple of rating: unlimited up to 1.0; between 1.0 and the first point, the first point's time;
 * between points, straight in log–log; none above the last point.
 */
export function allowedTimeS(curve: readonly OverloadPoint[], multiple: number): number {
  if (multiple <= 1) return Infinity;
  const first = curve[0];
  if (first === undefined) return 0;
  if (multiple <= first.multiple) return first.maxS;
  for (let index = 1; index < curve.length; index += 1) {
    const low = curve[index - 1];
    const high = curve[index];
    if (low === undefined || high === undefined || multiple > high.multiple) continue;
    const place = log(multiple / low.multiple) / log(high.multiple / low.multiple);
    return low.maxS * power(high.maxS / low.maxS, place);
  }
  return 0;
}

/** The inverse: the largest multiple of rating that may be held for a time. */
export function allowedMultiple(curve: readonly OverloadPoint[], timeS: number): number {
  const first = curve[0];
  if (first === undefined || timeS > first.maxS) return 1;
  for (let index = 1; index < curve.length; index += 1) {
    const low = curve[index - 1];
    const high = curve[index];
    if (low === undefined || high === undefined || timeS < high.maxS) continue;
    const place = log(timeS / low.maxS) / log(high.maxS / low.maxS);
    return low.multiple * power(high.multiple / low.multiple, place);
  }
  return curve.at(-1)?.multiple ?? 1;
}

/** The level of an envelope that comes nearest to, or goes furthest past, what the curve allows. */
export interface WorstLevel {
  /** Which step of the envelope it is. */
  readonly index: number;
  readonly va: number;
  /** Longest contiguous time at or above this level. */
  readonly neededS: number;
  readonly allowedVa: number;
  readonly allowedS: number;
}

/** For each step, the longest stretch around it that stays at or above its level. Linear, by a stack of rising levels. */
function stretchesS(steps: readonly EnvelopeStep[]): number[] {
  const starts: number[] = [];
  let time = 0;
  for (const step of steps) {
    starts.push(time);
    time += step.durationS;
  }
  const stretch = steps.map(() => 0);
  const open: { index: number; from: number }[] = [];
  const closeAbove = (va: number, at: number): number => {
    let from = at;
    for (let top = open.at(-1); top !== undefined && (steps[top.index]?.va ?? 0) > va; top = open.at(-1)) {
      stretch[top.index] = at - top.from;
      from = top.from;
      open.pop();
    }
    return from;
  };
  steps.forEach((step, index) => {
    const at = starts[index] ?? 0;
    open.push({ index, from: closeAbove(step.va, at) });
  });
  closeAbove(-1, time);
  return stretch;
}

/**
 * Holds an envelope against an overload curve: at every level s, the longest contiguous time at or above s must not
 * exceed the curve's time at s. Returns the level with the least headroom, or undefined for an empty envelope.
 *
 * @param ratedVa what a multiple of 1.0 stands for
 */
export function worstLevel(
  steps: readonly EnvelopeStep[],
  curve: readonly OverloadPoint[],
  ratedVa: number,
): WorstLevel | undefined {
  const stretch = stretchesS(steps);
  let worst: WorstLevel | undefined;
  let worstRatio = -1;
  steps.forEach((step, index) => {
    const neededS = stretch[index] ?? 0;
    if (neededS <= 0) return;
    const allowedVa = ratedVa * allowedMultiple(curve, neededS);
    const ratio = allowedVa > 0 ? step.va / allowedVa : Infinity;
    if (ratio > worstRatio) {
      worstRatio = ratio;
      const allowedS = ratedVa > 0 ? allowedTimeS(curve, step.va / ratedVa) : 0;
      worst = { index, va: step.va, neededS, allowedVa, allowedS };
    }
  });
  return worst;
}

/** One point of an envelope for plotting beside a curve: a level, and the longest contiguous time at or above it. */
export interface LevelTime {
  readonly va: number;
  readonly timeS: number;
}

/** Every level of an envelope with the longest time at or above it, from the highest level down. */
export function levelTimes(steps: readonly EnvelopeStep[]): LevelTime[] {
  const longest = new Map<number, number>();
  stretchesS(steps).forEach((timeS, index) => {
    const va = steps[index]?.va ?? 0;
    if (timeS > (longest.get(va) ?? 0)) longest.set(va, timeS);
  });
  return [...longest].map(([va, timeS]) => ({ va, timeS })).sort((a, b) => b.va - a.va);
}
