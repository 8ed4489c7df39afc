import type { Path } from '../design/problem.ts';
import type { Circuit } from '../design/schema.ts';
import { add, type Complex, ZERO } from '../network/complex.ts';
import { averageW, factorFinder, type LineFactors, runningItem, stepsOfStart } from './loads.ts';
import type { Supply } from './supply.ts';
import {
  coldPickup,
  type LargestStart,
  largestStartW,
  outstandingStarts,
  seeLine,
  seeWhole,
  type StartingItem,
  type StartOnLine,
  type SurgeStep,
} from './surges.ts';

/** A sum over items: what is known of it, and the fields that are still missing from it. */
export interface PartialSum<T> {
  readonly knownPart: T;
  readonly missing: readonly Path[];
}

/** The load of a set of circuits fed from one place. All powers are W + j·var, per line. Surges are worked out when asked for. */
export interface Board {
  readonly circuits: readonly Circuit[];
  readonly connected: PartialSum<readonly Complex[]>;
  readonly expected: PartialSum<readonly Complex[]>;
  /** Third-harmonic apparent power on each line at the expected peak, VA. */
  readonly harmonicVa: PartialSum<readonly number[]>;
  readonly averageW: PartialSum<number>;
  /** Per line: the starts that no other start of the same length outdoes. */
  readonly starts: PartialSum<readonly (readonly StartOnLine[])[]>;
  /** Per line: everything that starts, starting together. */
  readonly coldPickup: PartialSum<readonly (readonly SurgeStep[])[]>;
  /** The same two for all lines together: for sets that share what they have among their lines. */
  readonly totalStarts: readonly StartOnLine[];
  readonly totalColdPickup: readonly SurgeStep[];
  readonly largestStartW: LargestStart | undefined;
}

/** Running totals of one line. Written to only while its board is being gathered. */
interface LineTotals {
  connectedW: number;
  connectedVar: number;
  expectedW: number;
  expectedVar: number;
  harmonicVa: number;
}

interface Gathered {
  readonly lines: readonly LineTotals[];
  averageW: number;
  readonly starts: StartingItem[];
  readonly missing: Record<'running' | 'demand' | 'average' | 'start', Path[]>;
}

function addToLines(
  lines: readonly LineTotals[],
  factors: LineFactors,
  watts: number,
  vars: number,
  demand: number,
  thirdHarmonic: number,
): void {
  for (let index = 0; index < lines.length; index += 1) {
    const totals = lines[index];
    const factor = factors[index];
    if (totals === undefined || factor === undefined) continue;
    const lineW = watts * factor.re - vars * factor.im;
    const lineVar = watts * factor.im + vars * factor.re;
    totals.connectedW += lineW;
    totals.connectedVar += lineVar;
    totals.expectedW += lineW * demand;
    totals.expectedVar += lineVar * demand;
    if (thirdHarmonic > 0) totals.harmonicVa += thirdHarmonic * demand * Math.hypot(lineW, lineVar);
  }
}

function gather(circuits: readonly Circuit[], supply: Supply, electronicThirdHarmonic: number): Gathered {
  const factorsOf = factorFinder(supply);
  const sums: Gathered = {
    lines: supply.lines.map(() => ({
      connectedW: 0,
      connectedVar: 0,
      expectedW: 0,
      expectedVar: 0,
      harmonicVa: 0,
    })),
    averageW: 0,
    starts: [],
    missing: { running: [], demand: [], average: [], start: [] },
  };
  const { missing } = sums;
  for (const circuit of circuits) {
    if (circuit.items.length === 0) {
      // A circuit on which nothing is listed has not been surveyed: its load is not known, not nothing.
      const place = ['circuits', circuit.id, 'items'];
      missing.running.push(place);
      missing.average.push(place);
    }
    for (const item of circuit.items) {
      sums.averageW += averageW(circuit, item, missing.average) ?? 0;
      const running = runningItem(circuit, item, factorsOf, missing.running);
      const steps = stepsOfStart(circuit, item, missing.start);
      const demand = item.demandFactor;
      if (demand === undefined)
        missing.demand.push(['circuits', circuit.id, 'items', item.id, 'demandFactor']);
      if (running === undefined) continue;
      const third = item.startClass === 'electronic' ? electronicThirdHarmonic : 0;
      addToLines(
        sums.lines,
        running.factors,
        running.oneW * running.quantity,
        running.oneVar * running.quantity,
        demand ?? 0,
        third,
      );
      if (steps !== undefined && steps.length > 0 && demand !== undefined) {
        const pattern =
          steps.length === 1 ? String(steps[0]?.durationS) : steps.map((step) => step.durationS).join('/');
        sums.starts.push({ running, demand, steps, pattern });
      }
    }
  }
  return sums;
}

function lazy<T>(make: () => T): () => T {
  let made: { readonly value: T } | undefined;
  return () => (made ??= { value: make() }).value;
}

/** Compiles the circuits that one place feeds. Cost grows linearly with items. */
export function compileBoard(
  circuits: readonly Circuit[],
  supply: Supply,
  electronicThirdHarmonic: number,
): Board {
  const { lines, starts, missing, averageW: dailyW } = gather(circuits, supply, electronicThirdHarmonic);
  const expected = lines.map((line) => ({ re: line.expectedW, im: line.expectedVar }));
  const whole = expected.reduce(add, ZERO);
  const expectedMissing = [...missing.running, ...missing.demand];
  const surgeMissing = [...expectedMissing, ...missing.start];
  const startsByLine = lazy(() =>
    expected.map((total, line) => outstandingStarts(starts, total, seeLine(line))),
  );
  const pickupByLine = lazy(() => expected.map((total, line) => coldPickup(starts, total, seeLine(line))));
  const totalStarts = lazy(() => outstandingStarts(starts, whole, seeWhole));
  const totalColdPickup = lazy(() => coldPickup(starts, whole, seeWhole));
  const largest = lazy(() => largestStartW(starts, whole.re));
  return {
    circuits,
    connected: {
      knownPart: lines.map((line) => ({ re: line.connectedW, im: line.connectedVar })),
      missing: missing.running,
    },
    expected: { knownPart: expected, missing: expectedMissing },
    harmonicVa: { knownPart: lines.map((line) => line.harmonicVa), missing: expectedMissing },
    averageW: { knownPart: dailyW, missing: missing.average },
    get starts() {
      return { knownPart: startsByLine(), missing: surgeMissing };
    },
    get coldPickup() {
      return { knownPart: pickupByLine(), missing: surgeMissing };
    },
    get totalStarts() {
      return totalStarts();
    },
    get totalColdPickup() {
      return totalColdPickup();
    },
    get largestStartW() {
      return largest();
    },
  };
}
