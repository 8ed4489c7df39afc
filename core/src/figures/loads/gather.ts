import { hypot } from '../../values/elementary.ts';
import { type Chunk, chunksOf } from './chunks.ts';
import type { Path } from '../../values/problem.ts';
import type { Circuit, Item } from '../../installation/facts.ts';
import { complex, type Complex, magnitude, scale, ZERO } from '../../network/complex.ts';
import type { Line } from '../../values/quantities.ts';
import {
  averageW,
  factorFinder,
  type LineFactors,
  type RunningItem,
  runningItem,
  stepsOfStart,
} from './loads.ts';
import { remember } from '../../values/remember.ts';
import type { Supply } from '../../installation/supply.ts';
import type { DelayedLoad, StartingItem } from './surges.ts';

/** Running totals of one line. Written to only while its board is being gathered. */
interface LineTotals {
  connectedW: number;
  connectedVar: number;
  expectedW: number;
  expectedVar: number;
  clampedW: number;
  clampedVar: number;
  harmonicVa: number;
  averageW: number;
}

/** All that one walk over the circuits of a board finds. */
export interface Gathered {
  readonly lines: readonly LineTotals[];
  readonly averageW: number;
  readonly starts: readonly StartingItem[];
  readonly delayed: readonly DelayedLoad[];
  /** The same starts and delayed loads chunk by chunk; the chunks that an edit leaves alone stay the same objects. */
  readonly parts: readonly BoardPart[];
  readonly missing: Readonly<Record<'running' | 'demand' | 'average' | 'start', readonly Path[]>>;
  /** The load with clamp readings in place of estimates; undefined where nobody has clamped anything. */
  readonly clamped: { readonly knownPart: readonly Complex[]; readonly missing: readonly Path[] } | undefined;
}

/** What a circuit, or a chunk of them, adds to a board. Made once for it and a supply, whatever boards it is on. */
export interface BoardPart {
  readonly lines: readonly LineTotals[];
  readonly averageW: number;
  readonly starts: readonly StartingItem[];
  readonly delayed: readonly DelayedLoad[];
  readonly missing: Readonly<Record<'running' | 'demand' | 'average' | 'start', readonly Path[]>>;
}

interface Gathering {
  readonly lines: LineTotals[];
  averageW: number;
  readonly starts: StartingItem[];
  readonly delayed: DelayedLoad[];
  readonly missing: Record<'running' | 'demand' | 'average' | 'start', Path[]>;
}

interface Clamping {
  readonly missing: Path[];
  hasClamp: boolean;
}

const noTotals = (): LineTotals => ({
  connectedW: 0,
  connectedVar: 0,
  expectedW: 0,
  expectedVar: 0,
  clampedW: 0,
  clampedVar: 0,
  harmonicVa: 0,
  averageW: 0,
});

const emptySums = (supply: Supply): Gathering => ({
  lines: supply.lines.map(noTotals),
  averageW: 0,
  starts: [],
  delayed: [],
  missing: { running: [], demand: [], average: [], start: [] },
});

function addToLines(
  lines: readonly LineTotals[],
  factors: LineFactors,
  watts: number,
  vars: number,
  demand: number,
  thirdHarmonic: number,
  dayShare: number,
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
    totals.averageW += lineW * dayShare;
    totals.expectedVar += lineVar * demand;
    if (thirdHarmonic > 0) totals.harmonicVa += thirdHarmonic * demand * hypot(lineW, lineVar);
  }
}

/** Adds one item to the sums; returns what it draws where that is known. */
function addItem(
  sums: Gathering,
  circuit: Circuit,
  item: Item,
  supply: Supply,
  running: RunningItem | undefined,
  electronicThirdHarmonic: number,
): void {
  const { missing } = sums;
  sums.averageW += averageW(circuit, item, missing.average) ?? 0;
  const steps = stepsOfStart(circuit, item, supply, missing.start);
  const demand = item.demandFactor;
  if (demand === undefined) missing.demand.push(['circuits', circuit.id, 'items', item.id, 'demandFactor']);
  if (running === undefined) return;
  // What hangs between two lines has no neutral: its harmonics return by the other line.
  const returns = circuit.lines?.length !== 2 && item.startClass === 'electronic';
  const third = returns ? electronicThirdHarmonic : 0;
  const watts = running.oneW * running.quantity;
  const vars = running.oneVar * running.quantity;
  addToLines(sums.lines, running.factors, watts, vars, demand ?? 0, third, (item.hoursPerDay ?? 0) / 24);
  const delayS = circuit.startDelayS ?? 0;
  if (steps !== undefined && steps.length > 0 && demand !== undefined) {
    const pattern =
      steps.length === 1 ? String(steps[0]?.durationS) : steps.map((step) => step.durationS).join('/');
    sums.starts.push({ running, demand, steps, pattern, delayS });
  } else if (delayS > 0 && demand !== undefined) {
    sums.delayed.push({ running, watts: watts * demand, vars: vars * demand, delayS });
  }
}

/** Highest clamp reading of a circuit on a line, A. What hangs between two lines has one current, read on either. */
function clampA({ lines, clampReadings }: Circuit, line: Line): number | undefined {
  const isPair = lines?.length === 2 && lines.includes(line);
  let highest: number | undefined;
  for (const reading of clampReadings ?? [])
    if (
      (isPair ? lines.includes(reading.line) : reading.line === line) &&
      (highest === undefined || reading.currentA > highest)
    )
      highest = reading.currentA;
  return highest;
}

/** The angle of a load on one of its lines: that of the estimate; where there is none, that of real power. */
function angleOn(estimate: Complex, factor: Complex | undefined): Complex {
  const unit = magnitude(estimate) > 0 ? estimate : (factor ?? ZERO);
  return magnitude(unit) > 0 ? scale(unit, 1 / magnitude(unit)) : complex(1, 0);
}

/** Puts the clamp readings of a circuit in place of its estimate, line by line: S = V · I at the angle of the estimate. */
function addClamped(
  lines: readonly LineTotals[],
  clamping: Clamping,
  circuit: Circuit,
  supply: Supply,
  part: BoardPart,
): void {
  const readings = supply.lines.map((line) => clampA(circuit, line));
  const hasReading = readings.some((reading) => reading !== undefined);
  const isComplete =
    circuit.lines !== undefined &&
    circuit.lines.every((line) => readings[supply.lines.indexOf(line)] !== undefined);
  if (hasReading) {
    clamping.hasClamp = true;
    if (supply.lineVoltageV === undefined) clamping.missing.push(['site', 'lineVoltageV']);
  }
  if (!isComplete) clamping.missing.push(...part.missing.running, ...part.missing.demand);
  const factors = circuit.lines === undefined ? [] : factorsFor(supply)(circuit.lines);
  lines.forEach((totals, index) => {
    const estimate = complex(part.lines[index]?.expectedW ?? 0, part.lines[index]?.expectedVar ?? 0);
    const reading = readings[index];
    const measured =
      reading === undefined || supply.lineVoltageV === undefined
        ? estimate
        : scale(angleOn(estimate, factors[index]), reading * supply.lineVoltageV);
    totals.clampedW += measured.re;
    totals.clampedVar += measured.im;
  });
}

/** A circuit with nothing listed has not been surveyed: not known, not nothing. */
function makePart(circuit: Circuit, supply: Supply, electronicThirdHarmonic: number): BoardPart {
  const factorsOf = factorsFor(supply);
  const sums = emptySums(supply);
  const { missing } = sums;
  if (circuit.items.length === 0) {
    const place = ['circuits', circuit.id, 'items'];
    missing.running.push(place);
    missing.average.push(place);
  }
  for (const item of circuit.items) {
    const running = runningItem(circuit, item, factorsOf, missing.running);
    addItem(sums, circuit, item, supply, running, electronicThirdHarmonic);
  }
  return sums;
}

/** Each way of connecting to a supply is worked out once. */
export const factorsFor = remember(factorFinder);

interface MadePart {
  readonly supply: Supply;
  readonly electronicThirdHarmonic: number;
  readonly part: BoardPart;
}

/** Circuits are never changed once they are made: what one adds to a board holds for as long as the supply is the same. */
function madeOnce<K extends object>(
  make: (key: K, supply: Supply, electronicThirdHarmonic: number) => BoardPart,
): typeof make {
  const made = new WeakMap<K, MadePart>();
  return (key, supply, electronicThirdHarmonic) => {
    const before = made.get(key);
    if (before?.supply === supply && before.electronicThirdHarmonic === electronicThirdHarmonic)
      return before.part;
    const part = make(key, supply, electronicThirdHarmonic);
    made.set(key, { supply, electronicThirdHarmonic, part });
    return part;
  };
}

const partOf = madeOnce(makePart);

const partOfChunk = madeOnce(({ circuits }: Chunk, supply, electronicThirdHarmonic) => {
  const sums = emptySums(supply);
  for (const circuit of circuits) addPart(sums, partOf(circuit, supply, electronicThirdHarmonic));
  return sums;
});

function addPart(sums: Gathering, part: BoardPart): void {
  sums.averageW += part.averageW;
  for (let index = 0; index < sums.lines.length; index += 1) {
    const totals = sums.lines[index];
    const own = part.lines[index];
    if (totals === undefined || own === undefined) continue;
    totals.connectedW += own.connectedW;
    totals.connectedVar += own.connectedVar;
    totals.expectedW += own.expectedW;
    totals.expectedVar += own.expectedVar;
    totals.harmonicVa += own.harmonicVa;
    totals.averageW += own.averageW;
  }
  for (const start of part.starts) sums.starts.push(start);
  for (const load of part.delayed) sums.delayed.push(load);
  const { missing } = part;
  for (const path of missing.running) sums.missing.running.push(path);
  for (const path of missing.demand) sums.missing.demand.push(path);
  for (const path of missing.average) sums.missing.average.push(path);
  for (const path of missing.start) sums.missing.start.push(path);
}

/** Sums the circuits of a board, chunk by chunk. */
export function gather(
  circuits: readonly Circuit[],
  supply: Supply,
  electronicThirdHarmonic: number,
): Gathered {
  const sums = emptySums(supply);
  const clamping: Clamping = { missing: [], hasClamp: false };
  const anyClamp = circuits.some((circuit) => (circuit.clampReadings?.length ?? 0) > 0);
  const parts = chunksOf(circuits).map((chunk) => partOfChunk(chunk, supply, electronicThirdHarmonic));
  for (const part of parts) addPart(sums, part);
  if (anyClamp)
    for (const circuit of circuits)
      addClamped(sums.lines, clamping, circuit, supply, partOf(circuit, supply, electronicThirdHarmonic));
  return {
    ...sums,
    parts,
    clamped: clamping.hasClamp
      ? {
          knownPart: sums.lines.map((line) => ({ re: line.clampedW, im: line.clampedVar })),
          missing: clamping.missing,
        }
      : undefined,
  };
}
