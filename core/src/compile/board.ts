import type { Path } from '../design/problem.ts';
import type { Circuit } from '../design/schema.ts';
import { add, type Complex, magnitude, subtract, ZERO } from '../network/complex.ts';
import type { EnvelopeStep } from '../network/overload.ts';
import { accumulate, compileItem, type CompiledStart } from './loads.ts';
import type { Supply } from './supply.ts';

/** A sum over items: what is known of it, and the fields that are still missing from it. */
export interface PartialSum<T> {
  readonly knownPart: T;
  readonly missing: readonly Path[];
}

/** A stretch of a surge with the power behind its VA, so that the working can show it. */
export interface SurgeStep extends EnvelopeStep {
  readonly power: Complex;
}

/** One start on top of the others' expected peak, as one line sees it. */
export interface StartOnLine {
  readonly label: string;
  readonly path: Path;
  readonly steps: readonly SurgeStep[];
}

/** The load of a set of circuits fed from one place. All powers are W + j·var, per line. */
export interface Board {
  readonly circuits: readonly Circuit[];
  readonly connected: PartialSum<readonly Complex[]>;
  readonly expected: PartialSum<readonly Complex[]>;
  readonly harmonicVa: PartialSum<readonly number[]>;
  readonly averageW: PartialSum<number>;
  /** Per line: the starts that no other start of the same length outdoes. */
  readonly starts: PartialSum<readonly (readonly StartOnLine[])[]>;
  /** Per line: everything that starts, starting together. */
  readonly coldPickup: PartialSum<readonly (readonly SurgeStep[])[]>;
  /** The same two for all lines together: for sets that share what they have among their lines. */
  readonly totalStarts: readonly StartOnLine[];
  readonly totalColdPickup: readonly SurgeStep[];
  /** Largest real power of all lines together during any one start. */
  readonly largestStartW:
    { readonly watts: number; readonly durationS: number; readonly label: string } | undefined;
}

interface Gathered {
  readonly connected: Complex[];
  readonly expected: Complex[];
  readonly harmonicVa: number[];
  averageW: number;
  readonly starts: CompiledStart[];
  readonly missing: Record<'connected' | 'expected' | 'average' | 'start', Path[]>;
}

function gather(circuits: readonly Circuit[], supply: Supply, electronicThirdHarmonic: number): Gathered {
  const zeros = (): Complex[] => supply.lines.map(() => ZERO);
  const sums: Gathered = {
    connected: zeros(),
    expected: zeros(),
    harmonicVa: supply.lines.map(() => 0),
    averageW: 0,
    starts: [],
    missing: { connected: [], expected: [], average: [], start: [] },
  };
  for (const circuit of circuits) {
    const on = circuit.lines?.map((line) => supply.lines.indexOf(line));
    for (const item of circuit.items) {
      const compiled = compileItem(circuit, item, on, supply, electronicThirdHarmonic);
      if (compiled.connected.known) accumulate(sums.connected, compiled.connected.value);
      else sums.missing.connected.push(...compiled.connected.missing);
      if (compiled.expected.known) accumulate(sums.expected, compiled.expected.value);
      else sums.missing.expected.push(...compiled.expected.missing);
      if (compiled.harmonicVa.known) {
        compiled.harmonicVa.value.forEach(
          (va, line) => (sums.harmonicVa[line] = (sums.harmonicVa[line] ?? 0) + va),
        );
      }
      if (compiled.averageW.known) sums.averageW += compiled.averageW.value;
      else sums.missing.average.push(...compiled.averageW.missing);
      if (!compiled.start.known) sums.missing.start.push(...compiled.start.missing);
      else if (compiled.start.value !== undefined) sums.starts.push(compiled.start.value);
    }
  }
  return sums;
}

/** Keeps, for each pattern of durations, only starts that are not outdone step by step by another. */
class Outstanding {
  private readonly byPattern = new Map<string, StartOnLine[]>();

  offer(candidate: StartOnLine): void {
    const pattern = candidate.steps.map((step) => step.durationS).join('/');
    const rivals = this.byPattern.get(pattern) ?? [];
    const outdoes = (a: StartOnLine, b: StartOnLine): boolean =>
      a.steps.every((step, index) => step.va >= (b.steps[index]?.va ?? 0));
    if (rivals.some((rival) => outdoes(rival, candidate))) return;
    this.byPattern.set(pattern, [...rivals.filter((rival) => !outdoes(candidate, rival)), candidate]);
  }

  list(): StartOnLine[] {
    return [...this.byPattern.values()].flat();
  }
}

const surgeStep = (power: Complex, durationS: number): SurgeStep => ({
  va: magnitude(power),
  durationS,
  power,
});

const sumOfLines = (power: readonly Complex[]): Complex => power.reduce(add, ZERO);

/** The outstanding starts on top of `total`, where `pick` takes one line of a per-line power, or their sum. */
function startsOn(sums: Gathered, pick: (power: readonly Complex[]) => Complex): StartOnLine[] {
  const total = pick(sums.expected);
  const outstanding = new Outstanding();
  for (const start of sums.starts) {
    if (start.steps.every((step) => magnitude(pick(step.added)) === 0)) continue;
    outstanding.offer({
      label: start.label,
      path: start.path,
      steps: start.steps.map((step) => surgeStep(add(total, pick(step.added)), step.durationS)),
    });
  }
  return outstanding.list();
}

/**
 * Everything that starts, starts together at time 0, and then runs: diversity is lost after a long break, so starting
 * items count in full and without their demand factor. Items that do not start stay at their expected peak.
 * Walks the moments at which some start changes step; linear in starts but for the sort.
 */
function coldPickup(sums: Gathered): { perLine: SurgeStep[][]; total: SurgeStep[] } {
  const changes: { atS: number; change: readonly Complex[] }[] = [];
  const now = [...sums.expected];
  for (const start of sums.starts) {
    const first = start.steps[0];
    if (first === undefined) continue;
    accumulate(
      now,
      first.together.map((power, line) => subtract(power, start.expected[line] ?? ZERO)),
    );
    let atS = 0;
    start.steps.forEach((step, index) => {
      atS += step.durationS;
      const next = start.steps[index + 1]?.together ?? start.running;
      changes.push({ atS, change: next.map((power, line) => subtract(power, step.together[line] ?? ZERO)) });
    });
  }
  changes.sort((a, b) => a.atS - b.atS);
  const perLine: SurgeStep[][] = now.map(() => []);
  const total: SurgeStep[] = [];
  let fromS = 0;
  for (let index = 0; index < changes.length;) {
    const atS = changes[index]?.atS ?? 0;
    if (atS > fromS) {
      now.forEach((power, line) => perLine[line]?.push(surgeStep(power, atS - fromS)));
      total.push(surgeStep(sumOfLines(now), atS - fromS));
      fromS = atS;
    }
    for (; changes[index]?.atS === atS; index += 1) accumulate(now, changes[index]?.change ?? []);
  }
  return { perLine, total };
}

function largestStartW(sums: Gathered): Board['largestStartW'] {
  const steadyW = sums.expected.reduce((sum, power) => sum + power.re, 0);
  let largest: Board['largestStartW'];
  for (const start of sums.starts) {
    for (const step of start.steps) {
      const watts = steadyW + step.added.reduce((sum, power) => sum + power.re, 0);
      if (largest === undefined || watts > largest.watts)
        largest = { watts, durationS: step.durationS, label: start.label };
    }
  }
  return largest;
}

/** Compiles the circuits that one place feeds. Cost grows linearly with items. */
export function compileBoard(
  circuits: readonly Circuit[],
  supply: Supply,
  electronicThirdHarmonic: number,
): Board {
  const sums = gather(circuits, supply, electronicThirdHarmonic);
  const { missing } = sums;
  const pickup = coldPickup(sums);
  const surgeMissing = [...missing.expected, ...missing.start];
  return {
    circuits,
    connected: { knownPart: sums.connected, missing: missing.connected },
    expected: { knownPart: sums.expected, missing: missing.expected },
    harmonicVa: { knownPart: sums.harmonicVa, missing: missing.expected },
    averageW: { knownPart: sums.averageW, missing: missing.average },
    starts: {
      knownPart: supply.lines.map((_, line) => startsOn(sums, (power) => power[line] ?? ZERO)),
      missing: surgeMissing,
    },
    coldPickup: { knownPart: pickup.perLine, missing: surgeMissing },
    totalStarts: startsOn(sums, sumOfLines),
    totalColdPickup: pickup.total,
    largestStartW: largestStartW(sums),
  };
}
