import { atan2, cos, hypot, sin } from '../values/elementary.ts';
import { wholePower } from '../values/power.ts';
/** A signal with equal steps of time. */
export interface Signal {
  readonly samples: Float64Array;
  readonly rateHz: number;
}

/** The mean over whole cycles is taken off, so that an offset of the probe moves no crossing. */
export function meanOf(samples: Float64Array): number {
  let sum = 0;
  for (const value of samples) sum += value;
  return samples.length === 0 ? 0 : sum / samples.length;
}

/**
 * Times of rising zero crossings, s, by straight lines between samples. A crossing counts once the signal has been below −hysteresis
 * since the last one, so that noise around zero makes no cycles.
 */
export function risingCrossings({ samples, rateHz }: Signal, hysteresis: number): number[] {
  const times: number[] = [];
  let isArmed = false;
  for (let at = 1; at < samples.length; at += 1) {
    const before = samples[at - 1] ?? 0;
    const now = samples[at] ?? 0;
    if (before < -hysteresis) isArmed = true;
    if (isArmed && before < 0 && now >= 0) {
      times.push((at - 1 + before / (before - now)) / rateHz);
      isArmed = false;
    }
  }
  return times;
}

/** Frequency of each cycle with the time of its middle: f = 1 / (t_k − t_{k−1}). */
export const cycleFrequencies = (
  crossings: readonly number[],
): { readonly atS: number; readonly hz: number }[] =>
  crossings.slice(1).map((time, index) => {
    const before = crossings[index] ?? time;
    return { atS: (time + before) / 2, hz: 1 / (time - before) };
  });

/** One value of the half-cycle RMS. */
export interface HalfCycle {
  readonly atS: number;
  readonly rms: number;
}

/**
 * RMS over one cycle, renewed each half cycle (U_rms(1/2) of IEC 61000-4-30), with the sum of squares kept running: in time that grows
 * with the samples alone.
 */
export function halfCycleRms({ samples, rateHz }: Signal, frequencyHz: number): HalfCycle[] {
  const cycle = Math.max(2, Math.round(rateHz / frequencyHz));
  const half = cycle / 2;
  const found: HalfCycle[] = [];
  const running = new Float64Array(samples.length + 1);
  for (let at = 0; at < samples.length; at += 1) {
    const value = samples[at] ?? 0;
    running[at + 1] = (running[at] ?? 0) + value * value;
  }
  for (let step = 0; ; step += 1) {
    const start = Math.round(step * half);
    const end = start + cycle;
    if (end > samples.length) return found;
    const squares = (running[end] ?? 0) - (running[start] ?? 0);
    found.push({ atS: (start + end) / 2 / rateHz, rms: Math.sqrt(Math.max(0, squares) / cycle) });
  }
}

/** A sine by its amplitude and the phase that it has at time zero: a · sin(2πft + φ). */
export interface Sine {
  readonly amplitude: number;
  readonly phase: number;
  readonly offset: number;
}

/** The sine of a known frequency that lies nearest to a stretch of samples, by least squares over sine, cosine and an offset. */
export function fitSine(
  { samples, rateHz }: Signal,
  frequencyHz: number,
  fromS: number,
  toS: number,
): Sine | undefined {
  const from = Math.max(0, Math.round(fromS * rateHz));
  const to = Math.min(samples.length, Math.round(toS * rateHz));
  if (to - from < 8) return undefined;
  const m = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  const r = [0, 0, 0];
  const w = (2 * Math.PI * frequencyHz) / rateHz;
  for (let at = from; at < to; at += 1) {
    const row = [sin(w * at), cos(w * at), 1];
    const value = samples[at] ?? 0;
    for (let i = 0; i < 3; i += 1) {
      r[i] = (r[i] ?? 0) + (row[i] ?? 0) * value;
      for (let j = 0; j < 3; j += 1) m[3 * i + j] = (m[3 * i + j] ?? 0) + (row[i] ?? 0) * (row[j] ?? 0);
    }
  }
  const solved = solve3(m, r);
  if (solved === undefined) return undefined;
  const [sine, cosine, offset] = solved;
  return { amplitude: hypot(sine, cosine), phase: atan2(cosine, sine), offset };
}

/** Cramer's rule for three unknowns; undefined where the rows depend on each other. */
function solve3(m: readonly number[], r: readonly number[]): readonly [number, number, number] | undefined {
  const det = (a: readonly number[]): number => {
    const [p = 0, q = 0, s = 0, t = 0, u = 0, v = 0, w = 0, x = 0, y = 0] = a;
    return p * (u * y - v * x) - q * (t * y - v * w) + s * (t * x - u * w);
  };
  const whole = det(m);
  const size = Math.max(...m.map(Math.abs));
  if (Math.abs(whole) < 1e-12 * wholePower(size, 3)) return undefined;
  const column = (index: number): number =>
    det(m.map((value, at) => (at % 3 === index ? (r[Math.floor(at / 3)] ?? 0) : value))) / whole;
  return [column(0), column(1), column(2)];
}
