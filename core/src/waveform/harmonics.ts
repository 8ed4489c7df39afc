import { cos, hypot, sin } from '../values/elementary.ts';
import type { Signal } from './cycles.ts';

export interface Harmonics {
  /** RMS of the fundamental, in the unit of the signal. */
  readonly fundamental: number;
  /** Share of the fundamental of orders 2 to 40, by order. */
  readonly shares: readonly { readonly order: number; readonly share: number }[];
  /** Root of the sum of squares of those shares. */
  readonly distortion: number;
}

const HIGHEST = 40;
const CYCLES = 10;

/** Amplitude at one frequency of a stretch weighted by a Hann window: what lies ten bins away leaks less than a ten-thousandth. */
function amplitudeAt(samples: Float64Array, from: number, to: number, step: number): number {
  const count = to - from;
  let re = 0;
  let im = 0;
  let weights = 0;
  for (let at = 0; at < count; at += 1) {
    const weight = 0.5 - 0.5 * cos((2 * Math.PI * at) / count);
    const value = (samples[from + at] ?? 0) * weight;
    re += value * cos(step * at);
    im -= value * sin(step * at);
    weights += weight;
  }
  return (2 * hypot(re, im)) / weights;
}

/**
 * Harmonics to the 40th over ten cycles from a time on. Orders above half the sampling rate are left out. Undefined where ten cycles
 * are not there, or the fundamental is nothing.
 */
export function harmonicsOf(
  { samples, rateHz }: Signal,
  frequencyHz: number,
  fromS: number,
): Harmonics | undefined {
  const from = Math.round(fromS * rateHz);
  const to = from + Math.round((CYCLES * rateHz) / frequencyHz);
  if (from < 0 || to > samples.length) return undefined;
  const step = (2 * Math.PI * frequencyHz) / rateHz;
  const first = amplitudeAt(samples, from, to, step);
  if (!(first > 0)) return undefined;
  const shares = [];
  for (let order = 2; order <= HIGHEST && order * frequencyHz < rateHz / 2.2; order += 1)
    shares.push({ order, share: amplitudeAt(samples, from, to, order * step) / first });
  return {
    fundamental: first / Math.SQRT2,
    shares,
    distortion: Math.sqrt(shares.reduce((sum, { share }) => sum + share * share, 0)),
  };
}
