import { log } from '../values/elementary.ts';
import { wholePower } from '../values/power.ts';
/** Least and greatest sample of each stretch, coarser from level to level: what a picture of millions of samples is drawn from. */
export interface Pyramid {
  readonly samples: Float64Array;
  /** levels[k] holds pairs (least, greatest) of stretches of FACTOR^(k+1) samples. */
  readonly levels: readonly Float64Array[];
}

const FACTOR = 16;
/** A level with fewer pairs than this is drawn as it is. */
const LEAST_PAIRS = 512;

function coarser(pairs: Float64Array): Float64Array {
  const count = Math.ceil(pairs.length / 2 / FACTOR);
  const next = new Float64Array(count * 2);
  for (let at = 0; at < count; at += 1) {
    let least = Infinity;
    let most = -Infinity;
    const end = Math.min((at + 1) * FACTOR, pairs.length / 2);
    for (let from = at * FACTOR; from < end; from += 1) {
      least = Math.min(least, pairs[2 * from] ?? Infinity);
      most = Math.max(most, pairs[2 * from + 1] ?? -Infinity);
    }
    next[2 * at] = least;
    next[2 * at + 1] = most;
  }
  return next;
}

function firstLevel(samples: Float64Array): Float64Array {
  const count = Math.ceil(samples.length / FACTOR);
  const pairs = new Float64Array(count * 2);
  for (let at = 0; at < count; at += 1) {
    let least = Infinity;
    let most = -Infinity;
    const end = Math.min((at + 1) * FACTOR, samples.length);
    for (let from = at * FACTOR; from < end; from += 1) {
      const value = samples[from] ?? 0;
      if (value < least) least = value;
      if (value > most) most = value;
    }
    pairs[2 * at] = least;
    pairs[2 * at + 1] = most;
  }
  return pairs;
}

export function pyramidOf(samples: Float64Array): Pyramid {
  const levels: Float64Array[] = [];
  if (samples.length > LEAST_PAIRS * FACTOR) {
    levels.push(firstLevel(samples));
    for (let last = levels.at(-1); last !== undefined && last.length / 2 > LEAST_PAIRS; last = levels.at(-1))
      levels.push(coarser(last));
  }
  return { samples, levels };
}

/**
 * Least and greatest sample in each of so many columns from one sample to another, as pairs: of a stretch of any length in time that
 * grows with the columns, not with the samples. No spike is lost.
 */
export function columnsOf(
  { samples, levels }: Pyramid,
  from: number,
  to: number,
  columns: number,
): Float64Array {
  const out = new Float64Array(columns * 2);
  const width = (to - from) / columns;
  const depth = Math.min(levels.length, Math.max(0, Math.floor(log(Math.max(width, 1)) / log(FACTOR))));
  const level = depth === 0 ? undefined : levels[depth - 1];
  const step = wholePower(FACTOR, depth);
  for (let column = 0; column < columns; column += 1) {
    const a = from + column * width;
    const b = Math.max(a + 1, from + (column + 1) * width);
    let least = Infinity;
    let most = -Infinity;
    const first = Math.floor(a / step);
    const last = Math.ceil(b / step);
    for (let at = first; at < last; at += 1) {
      const low = level === undefined ? samples[at] : level[2 * at];
      const high = level === undefined ? samples[at] : level[2 * at + 1];
      if (low !== undefined && low < least) least = low;
      if (high !== undefined && high > most) most = high;
    }
    out[2 * column] = least === Infinity ? NaN : least;
    out[2 * column + 1] = most === -Infinity ? NaN : most;
  }
  return out;
}
