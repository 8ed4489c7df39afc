import type { Path } from '../../values/problem.ts';
import type { Circuit } from '../../installation/facts.ts';
import { add, type Complex, scale, ZERO } from '../../network/complex.ts';
import { lazy } from '../../values/lazy.ts';
import { gather } from './gather.ts';
import type { Supply } from '../../installation/supply.ts';
import {
  type BatteryStart,
  batteryStarts,
  coldPickup,
  type DelayedLoad,
  outstandingStarts,
  seeLine,
  seeWhole,
  staggeredPickup,
  type StartingItem,
  type StartOnLine,
  type SurgeStep,
} from './surges.ts';

/** A sum over items: what is known of it, and the fields that are still missing from it. */
export interface PartialSum<T> {
  readonly knownPart: T;
  readonly missing: readonly Path[];
}

/** Which load case the continuous limits are held against. */
export type LoadCase = 'expected peak' | 'measured by clamp' | 'measured by meter';

export const LOAD_CASE_WORDS: Readonly<Record<LoadCase, string>> = {
  'expected peak': 'expected peak',
  'measured by clamp': 'measured load (clamp readings where there are any)',
  'measured by meter': 'measured peak (interval meter, times the crest)',
};

/** The load of a set of circuits fed from one place. All powers are W + j·var, per line. Surges are worked out when asked for. */
export interface Board {
  readonly circuits: readonly Circuit[];
  readonly connected: PartialSum<readonly Complex[]>;
  readonly expected: PartialSum<readonly Complex[]>;
  /** What continuous limits are held against: measured where there is a measurement, else the expected peak. */
  readonly continuous: PartialSum<readonly Complex[]> & { readonly loadCase: LoadCase };
  /** Third-harmonic apparent power on each line at the expected peak, VA. */
  readonly harmonicVa: PartialSum<readonly number[]>;
  readonly averageW: PartialSum<number>;
  /** The same, line by line. */
  readonly lineAverageW: PartialSum<readonly number[]>;
  /** Per line: the starts that no other start of the same length outdoes. */
  readonly starts: PartialSum<readonly (readonly StartOnLine[])[]>;
  /** Per line: everything that starts, starting together. */
  readonly coldPickup: PartialSum<readonly (readonly SurgeStep[])[]>;
  /** The same two for all lines together: for sets that share what they have among their lines. */
  readonly totalStarts: readonly StartOnLine[];
  readonly totalColdPickup: readonly SurgeStep[];
  /** Whether any circuit closes with a delay of its own after supply returns in island. */
  readonly isStaggered: boolean;
  /** Per line: pickup with the delays of the design, and the same for all lines together. */
  readonly staggered: PartialSum<readonly (readonly SurgeStep[])[]>;
  readonly totalStaggered: readonly SurgeStep[];
  /** What can start here and what only runs behind a delay: for starts that a person or a proposal picks. */
  readonly startingItems: readonly StartingItem[];
  readonly delayedLoads: readonly DelayedLoad[];
  /** What asks most of a battery; the largest of all lines together first. */
  readonly batteryStarts: readonly BatteryStart[];
}

export interface BoardOptions {
  readonly electronicThirdHarmonic: number;
  /** Peak that an interval meter has measured of just this board, crest included. */
  readonly meterPeakW?: number | undefined;
}

/** The measured load: a meter's peak split over the lines as the expected load is, or clamp readings in place of estimates. */
function continuousLoad(
  expected: PartialSum<readonly Complex[]>,
  clamped: PartialSum<readonly Complex[]> | undefined,
  meterPeakW: number | undefined,
): Board['continuous'] {
  const expectedW = expected.knownPart.reduce(add, ZERO).re;
  if (meterPeakW !== undefined && expectedW > 0) {
    const factor = meterPeakW / expectedW;
    const knownPart = expected.knownPart.map((line) => scale(line, factor));
    return { knownPart, missing: expected.missing, loadCase: 'measured by meter' };
  }
  if (clamped !== undefined) return { ...clamped, loadCase: 'measured by clamp' };
  return { ...expected, loadCase: 'expected peak' };
}

/** Compiles the circuits that one place feeds. Cost grows linearly with items; of chunks that were summed before only their sums count. */
export function compileBoard(circuits: readonly Circuit[], supply: Supply, options: BoardOptions): Board {
  const gathered = gather(circuits, supply, options.electronicThirdHarmonic);
  const { lines, starts, delayed, parts, missing } = gathered;
  const expected = {
    knownPart: lines.map((line) => ({ re: line.expectedW, im: line.expectedVar })),
    missing: [...missing.running, ...missing.demand],
  };
  const whole = expected.knownPart.reduce(add, ZERO);
  const surgeMissing = [...expected.missing, ...missing.start];
  const startsByLine = lazy(() =>
    expected.knownPart.map((total, line) => outstandingStarts(parts, total, seeLine(line))),
  );
  const pickupByLine = lazy(() =>
    expected.knownPart.map((total, line) => coldPickup(parts, total, seeLine(line))),
  );
  const staggeredByLine = lazy(() =>
    expected.knownPart.map((total, line) => staggeredPickup(parts, total, seeLine(line))),
  );
  const totalStarts = lazy(() => outstandingStarts(parts, whole, seeWhole));
  const totalColdPickup = lazy(() => coldPickup(parts, whole, seeWhole));
  const totalStaggered = lazy(() => staggeredPickup(parts, whole, seeWhole));
  const continuous = continuousLoad(expected, gathered.clamped, options.meterPeakW);
  const forBattery = lazy(() => batteryStarts(parts, expected.knownPart, continuous.knownPart));
  return {
    circuits,
    connected: {
      knownPart: lines.map((line) => ({ re: line.connectedW, im: line.connectedVar })),
      missing: missing.running,
    },
    expected,
    continuous,
    harmonicVa: { knownPart: lines.map((line) => line.harmonicVa), missing: expected.missing },
    averageW: { knownPart: gathered.averageW, missing: missing.average },
    lineAverageW: {
      knownPart: lines.map((line) => line.averageW),
      missing: [...missing.running, ...missing.average],
    },
    isStaggered: circuits.some((circuit) => (circuit.startDelayS ?? 0) > 0),
    startingItems: starts,
    delayedLoads: delayed,
    get starts() {
      return { knownPart: startsByLine(), missing: surgeMissing };
    },
    get coldPickup() {
      return { knownPart: pickupByLine(), missing: surgeMissing };
    },
    get staggered() {
      return { knownPart: staggeredByLine(), missing: surgeMissing };
    },
    get totalStarts() {
      return totalStarts();
    },
    get totalColdPickup() {
      return totalColdPickup();
    },
    get totalStaggered() {
      return totalStaggered();
    },
    get batteryStarts() {
      return forBattery();
    },
  };
}
