import { halfCycleRms, type Signal } from './cycles.ts';

/** What is measured of a current over a start. */
export interface CurrentMeasure {
  /** Highest instantaneous value, A, and when. */
  readonly peakA: number;
  readonly peakAtS: number;
  /** ∫ |i| dt, As, and ∫ i² dt, A²s, over the stretch. */
  readonly chargeAs: number;
  readonly i2tA2s: number;
  /** Highest and last half-cycle RMS, A. */
  readonly highestRmsA: number;
  readonly settledRmsA: number;
  /** For how long the half-cycle RMS lies above 1.1 times what it settles at, s. */
  readonly inrushS: number;
}

/** A start is over once the current is this near to where it settles. */
const SETTLED = 1.1;

/** Measures a current from one time to another: by the trapezoid between samples. Undefined where there are not two samples. */
export function measureCurrent(
  { samples, rateHz }: Signal,
  frequencyHz: number,
  fromS = 0,
  toS = samples.length / rateHz,
): CurrentMeasure | undefined {
  const from = Math.max(0, Math.round(fromS * rateHz));
  const to = Math.min(samples.length, Math.round(toS * rateHz));
  if (to - from < 2) return undefined;
  let peakA = 0;
  let peakAt = from;
  let charge = 0;
  let squares = 0;
  for (let at = from; at < to; at += 1) {
    const now = samples[at] ?? 0;
    if (Math.abs(now) > peakA) {
      peakA = Math.abs(now);
      peakAt = at;
    }
    if (at === from) continue;
    const before = samples[at - 1] ?? 0;
    charge += (Math.abs(before) + Math.abs(now)) / 2;
    squares += (before * before + now * now) / 2;
  }
  const rms = halfCycleRms({ samples: samples.subarray(from, to), rateHz }, frequencyHz);
  const settled = rms.at(-1)?.rms ?? 0;
  const high = rms.filter((one) => one.rms > SETTLED * settled);
  const [first] = high;
  const last = high.at(-1);
  return {
    peakA,
    peakAtS: peakAt / rateHz,
    chargeAs: charge / rateHz,
    i2tA2s: squares / rateHz,
    highestRmsA: Math.max(0, ...rms.map((one) => one.rms)),
    settledRmsA: settled,
    inrushS: first === undefined || last === undefined ? 0 : last.atS - first.atS + 0.5 / frequencyHz,
  };
}
