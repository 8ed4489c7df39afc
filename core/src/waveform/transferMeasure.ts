import { asin } from '../values/elementary.ts';
import { square } from '../values/power.ts';
import { cycleFrequencies, fitSine, halfCycleRms, meanOf, risingCrossings, type Signal } from './cycles.ts';

/** What a voltage has to come back to, and from where on it counts as gone. */
export interface VoltageExpectation {
  /** RMS, V. */
  readonly nominalV: number;
  readonly nominalHz: number;
  /** Band around nominal, as a share either way. */
  readonly band: number;
}

/** What is measured of the voltage of one channel over a transfer. All times from the first sample, s. */
export interface TransferMeasure {
  /** The longest stretch without voltage; undefined where there was none. */
  readonly gap: { readonly fromS: number; readonly toS: number } | undefined;
  /** Lowest half-cycle RMS, and for how long it lay below 90 % of nominal. */
  readonly dip: { readonly lowestV: number; readonly lengthS: number; readonly fromS: number } | undefined;
  /** The longest stretch in which supplies and contactors cannot be counted on to hold: the gap, or half-cycle RMS below 70 % of nominal. */
  readonly lowS: number;
  /** Highest peak after the gap or dip over the nominal peak. */
  readonly overshoot: number | undefined;
  readonly highestV: number;
  /** From the beginning of the trouble until the half-cycle RMS stays inside the band; undefined where it never does. */
  readonly backInBandS: number | undefined;
  /** Mean frequency after the trouble, the furthest from nominal, and the steepest slope over five cycles. */
  readonly frequencyHz: number | undefined;
  readonly furthestHz: number | undefined;
  readonly slopeHzPerS: number | undefined;
  /** How far the phase after the gap lies from the one before, degrees, −180 to 180. */
  readonly phaseJumpDeg: number | undefined;
  readonly rms: readonly { readonly atS: number; readonly rms: number }[];
}

/** Below this share of the nominal peak there is no voltage. */
const GONE = 0.1;
/** A dip begins below this share of nominal (IEC 61000-4-30). */
const DIP = 0.9;
/** What electronic supplies and contactors are tested to hold through for a while (the 70 % step of IEC 61000-4-11 and -34). */
const HOLDS = 0.7;
/** A sine dwells below a tenth of its peak for 2 · asin(0.1) / 2π of a cycle at each crossing; a gap is half as long again at least. */
const CROSSING_DWELL = asin(GONE) / Math.PI;
const LEAST_GAP = 1.5 * CROSSING_DWELL;
const FITTED_CYCLES = 2;
const SLOPE_CYCLES = 5;

/** The longest run of samples nearer to zero than a limit, as places. */
function longestQuiet(samples: Float64Array, limit: number): { from: number; to: number } | undefined {
  let best: { from: number; to: number } | undefined;
  let start = -1;
  for (let at = 0; at <= samples.length; at += 1) {
    const isQuiet = at < samples.length && Math.abs(samples[at] ?? 0) < limit;
    if (isQuiet && start < 0) start = at;
    if (!isQuiet && start >= 0) {
      if (best === undefined || at - start > best.to - best.from) best = { from: start, to: at };
      start = -1;
    }
  }
  return best;
}

/** What is left in a gap is noise: three times the RMS of its middle half, and a fiftieth of the peak at least. */
function noiseOf(samples: Float64Array, { from, to }: { from: number; to: number }, peakV: number): number {
  const quarter = Math.floor((to - from) / 4);
  let squares = 0;
  for (let at = from + quarter; at < to - quarter; at += 1) squares += square(samples[at] ?? 0);
  const rms = Math.sqrt(squares / Math.max(1, to - from - 2 * quarter));
  return Math.min(GONE * peakV, Math.max(0.02 * peakV, 3 * rms));
}

/**
 * The stretch without voltage. A sine that ends or begins near its crossing is itself small there: the edges are where the voltage leaves
 * the noise of the gap, half a sample from the last seen and the first seen.
 */
function gapOf({ samples, rateHz }: Signal, peakV: number): { fromS: number; toS: number } | undefined {
  const quiet = longestQuiet(samples, GONE * peakV);
  if (quiet === undefined) return undefined;
  const limit = noiseOf(samples, quiet, peakV);
  const middle = Math.floor((quiet.from + quiet.to) / 2);
  let from = middle;
  let to = middle;
  while (from > quiet.from && Math.abs(samples[from - 1] ?? 0) < limit) from -= 1;
  while (to < quiet.to && Math.abs(samples[to] ?? 0) < limit) to += 1;
  return { fromS: Math.max(0, from - 0.5) / rateHz, toS: (to - 0.5) / rateHz };
}

const isGap = (quiet: { readonly fromS: number; readonly toS: number }, frequencyHz: number): boolean =>
  quiet.toS - quiet.fromS > LEAST_GAP / frequencyHz;

function dipOf(rms: TransferMeasure['rms'], nominalV: number, frequencyHz: number): TransferMeasure['dip'] {
  const low = rms.filter((one) => one.rms < DIP * nominalV);
  const [first] = low;
  const last = low.at(-1);
  if (first === undefined || last === undefined) return undefined;
  const half = 0.5 / frequencyHz;
  return {
    lowestV: Math.min(...low.map((one) => one.rms)),
    fromS: first.atS - half,
    lengthS: last.atS - first.atS + half,
  };
}

/**
 * The longest run of half cycles below what loads hold at. Its edges are known to half a cycle: a gap that is no shorter than that counts
 * as it was measured.
 */
function lowOf(
  rms: TransferMeasure['rms'],
  gap: TransferMeasure['gap'],
  { nominalV, nominalHz }: VoltageExpectation,
): number {
  const half = 0.5 / nominalHz;
  const gapS = gap === undefined ? 0 : gap.toS - gap.fromS;
  let longest = 0;
  let run = 0;
  for (const one of rms) {
    run = one.rms < HOLDS * nominalV ? run + 1 : 0;
    longest = Math.max(longest, run * half);
  }
  return longest - gapS > half + 1e-9 || gap === undefined ? longest : gapS;
}

function backInBand(
  rms: TransferMeasure['rms'],
  { nominalV, band }: VoltageExpectation,
  fromS: number,
): number | undefined {
  const outside = rms.findLast(
    ({ atS, rms: value }) => atS >= fromS && Math.abs(value / nominalV - 1) > band + 1e-9,
  );
  if (outside === undefined) return 0;
  const next = rms.find(({ atS }) => atS > outside.atS);
  return next === undefined ? undefined : next.atS - fromS;
}

/** The steepest slope of the frequency over some cycles, by least squares, Hz/s. */
function steepest(cycles: readonly { readonly atS: number; readonly hz: number }[]): number | undefined {
  if (cycles.length < SLOPE_CYCLES) return undefined;
  let most = 0;
  for (let at = 0; at + SLOPE_CYCLES <= cycles.length; at += 1) {
    const some = cycles.slice(at, at + SLOPE_CYCLES);
    const t = some.reduce((sum, { atS }) => sum + atS, 0) / SLOPE_CYCLES;
    const f = some.reduce((sum, { hz }) => sum + hz, 0) / SLOPE_CYCLES;
    const over = some.reduce((sum, { atS, hz }) => sum + (atS - t) * (hz - f), 0);
    const under = some.reduce((sum, { atS }) => sum + square(atS - t), 0);
    const slope = under === 0 ? 0 : over / under;
    if (Math.abs(slope) > Math.abs(most)) most = slope;
  }
  return most;
}

const wrapped = (degrees: number): number => ((((degrees + 180) % 360) + 360) % 360) - 180;

function phaseJump(
  signal: Signal,
  gap: { readonly fromS: number; readonly toS: number },
  beforeHz: number,
  afterHz: number,
): number | undefined {
  const beforeS = FITTED_CYCLES / beforeHz;
  const afterS = FITTED_CYCLES / afterHz;
  // The first half cycle after a gap is still settling.
  const startS = gap.toS + 0.5 / afterHz;
  const a = fitSine(signal, beforeHz, gap.fromS - beforeS - 0.001, gap.fromS - 0.001);
  const b = fitSine(signal, afterHz, startS, startS + afterS);
  if (a === undefined || b === undefined || a.amplitude === 0 || b.amplitude === 0) return undefined;
  const at = gap.toS;
  const phaseA = a.phase + 2 * Math.PI * beforeHz * at;
  const phaseB = b.phase + 2 * Math.PI * afterHz * at;
  return wrapped(((phaseB - phaseA) * 180) / Math.PI);
}

const mean = (list: readonly number[]): number | undefined =>
  list.length === 0 ? undefined : list.reduce((a, b) => a + b, 0) / list.length;

/** Measures the voltage of one channel over a transfer: gap, dip, overshoot, return, frequency and phase. */
export function measureTransfer(signal: Signal, expected: VoltageExpectation): TransferMeasure {
  const { nominalV, nominalHz } = expected;
  const peakV = nominalV * Math.SQRT2;
  const offset = meanOf(signal.samples);
  // An offset beyond a hundredth of the peak is the probe's.
  const centred =
    Math.abs(offset) > 0.01 * peakV
      ? { ...signal, samples: signal.samples.map((value) => value - offset) }
      : signal;
  const quiet = gapOf(centred, peakV);
  const gap = quiet !== undefined && isGap(quiet, nominalHz) ? quiet : undefined;
  const rms = halfCycleRms(centred, nominalHz);
  const dip = dipOf(rms, nominalV, nominalHz);
  const troubleS = gap?.fromS ?? dip?.fromS;
  const afterS = gap?.toS ?? (dip === undefined ? 0 : dip.fromS + dip.lengthS);
  let highest = 0;
  for (let at = Math.round((troubleS ?? 0) * signal.rateHz); at < centred.samples.length; at += 1)
    highest = Math.max(highest, Math.abs(centred.samples[at] ?? 0));
  const crossings = risingCrossings(centred, 0.05 * peakV);
  const before = cycleFrequencies(crossings.filter((time) => troubleS === undefined || time < troubleS));
  const after = cycleFrequencies(crossings.filter((time) => time > afterS));
  const beforeHz = mean(before.map(({ hz }) => hz)) ?? nominalHz;
  const frequencyHz = mean(after.map(({ hz }) => hz));
  return {
    gap,
    dip,
    lowS: lowOf(rms, gap, expected),
    // Where the voltage does not come back there is nothing to overshoot.
    overshoot: highest < GONE * peakV ? undefined : highest / peakV - 1,
    highestV: highest,
    backInBandS: troubleS === undefined ? 0 : backInBand(rms, expected, troubleS),
    frequencyHz,
    furthestHz: after.reduce<number | undefined>(
      (far, { hz }) => (far === undefined || Math.abs(hz - nominalHz) > Math.abs(far - nominalHz) ? hz : far),
      undefined,
    ),
    slopeHzPerS: steepest(after),
    phaseJumpDeg:
      gap === undefined || frequencyHz === undefined
        ? undefined
        : phaseJump(centred, gap, beforeHz, frequencyHz),
    rms,
  };
}
