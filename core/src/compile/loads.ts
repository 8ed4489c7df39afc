import { type StartStep, startSteps } from '../codes/starts.ts';
import type { Path } from '../design/problem.ts';
import type { Circuit, Item } from '../design/schema.ts';
import { add, type Complex, scale, subtract, ZERO } from '../network/complex.ts';
import { lagging, shareOnLines } from '../network/phasors.ts';
import { type Known, known, unknownAt } from '../design/known.ts';
import type { Supply } from './supply.ts';

/** One stretch of a start, per line. */
export interface CompiledStartStep {
  readonly durationS: number;
  /** What one of these adds to the expected peak of all, in W + j·var on each line: its start less its own expected share. */
  readonly added: readonly Complex[];
  /** What all of these take together while starting, on each line. */
  readonly together: readonly Complex[];
}

/** An item that starts, with what it does to each line. */
export interface CompiledStart {
  readonly label: string;
  readonly path: Path;
  readonly steps: readonly CompiledStartStep[];
  /** All of them running, after their start. */
  readonly running: readonly Complex[];
  /** Their share of the expected peak. */
  readonly expected: readonly Complex[];
}

/** What one item means electrically. A part that cannot be known says which fields it waits for. */
export interface CompiledItem {
  readonly connected: Known<readonly Complex[]>;
  readonly expected: Known<readonly Complex[]>;
  /** Third-harmonic apparent power on each line at the expected peak, VA. */
  readonly harmonicVa: Known<readonly number[]>;
  readonly averageW: Known<number>;
  /** Undefined: known not to start. */
  readonly start: Known<CompiledStart | undefined>;
}

function ownSteps(item: Item, path: Path): Known<readonly StartStep[]> {
  if (item.startMultiple !== undefined) {
    const missing: Path[] = [];
    if (item.startDurationS === undefined) missing.push([...path, 'startDurationS']);
    if (item.startPowerFactor === undefined) missing.push([...path, 'startPowerFactor']);
    if (missing.length > 0) return unknownAt(...missing);
    return known([
      {
        multiple: item.startMultiple,
        durationS: item.startDurationS ?? 0,
        powerFactor: item.startPowerFactor ?? 1,
      },
    ]);
  }
  return item.startClass === undefined
    ? unknownAt([...path, 'startClass'])
    : known(startSteps(item.startClass));
}

/** Compiles one item on the lines of its circuit. */
export function compileItem(
  circuit: Circuit,
  item: Item,
  on: readonly number[] | undefined,
  supply: Supply,
  electronicThirdHarmonic: number,
): CompiledItem {
  const path: Path = ['circuits', circuit.id, 'items', item.id];
  const base: Path[] = [];
  if (on === undefined) base.push(['circuits', circuit.id, 'lines']);
  if (item.quantity === undefined) base.push([...path, 'quantity']);
  if (item.runningW === undefined) base.push([...path, 'runningW']);
  if (item.powerFactor === undefined) base.push([...path, 'powerFactor']);
  const demandMissing: Path[] = item.demandFactor === undefined ? [[...path, 'demandFactor']] : [];
  const averageW = averagePower(item, path);
  if (on === undefined || base.length > 0) {
    const missing = unknownAt(...base);
    const expected = unknownAt(...base, ...demandMissing);
    return {
      connected: missing,
      expected,
      harmonicVa: expected,
      averageW,
      start: startless(item) ? known(undefined) : expected,
    };
  }
  const quantity = item.quantity ?? 0;
  const oneVa = (item.runningW ?? 0) / (item.powerFactor ?? 1);
  const one = shareOnLines(lagging(oneVa, item.powerFactor ?? 1), on, supply.directions);
  const connected = one.map((power) => scale(power, quantity));
  if (item.demandFactor === undefined) {
    const missing = unknownAt(...demandMissing);
    return {
      connected: known(connected),
      expected: missing,
      harmonicVa: missing,
      averageW,
      start: startless(item) ? known(undefined) : missing,
    };
  }
  const demand = item.demandFactor;
  const expected = connected.map((power) => scale(power, demand));
  const third = item.startClass === 'electronic' ? electronicThirdHarmonic : 0;
  const harmonicVa = expected.map((power) => third * Math.hypot(power.re, power.im));
  return {
    connected: known(connected),
    expected: known(expected),
    harmonicVa: known(harmonicVa),
    averageW,
    start: compileStart(
      circuit,
      item,
      path,
      { oneVa, one, on, quantity, demand, connected, expected },
      supply,
    ),
  };
}

/** An item known to be "steady" needs no other figure for its start: it has none. */
function startless(item: Item): boolean {
  return (
    item.startMultiple === undefined &&
    item.startClass !== undefined &&
    startSteps(item.startClass).length === 0
  );
}

function averagePower(item: Item, path: Path): Known<number> {
  const missing: Path[] = [];
  if (item.quantity === undefined) missing.push([...path, 'quantity']);
  if (item.runningW === undefined) missing.push([...path, 'runningW']);
  if (item.hoursPerDay === undefined) missing.push([...path, 'hoursPerDay']);
  if (missing.length > 0) return unknownAt(...missing);
  return known(((item.quantity ?? 0) * (item.runningW ?? 0) * (item.hoursPerDay ?? 0)) / 24);
}

interface Running {
  readonly oneVa: number;
  readonly one: readonly Complex[];
  readonly on: readonly number[];
  readonly quantity: number;
  readonly demand: number;
  readonly connected: readonly Complex[];
  readonly expected: readonly Complex[];
}

function compileStart(
  circuit: Circuit,
  item: Item,
  path: Path,
  running: Running,
  supply: Supply,
): Known<CompiledStart | undefined> {
  const steps = ownSteps(item, path);
  if (!steps.known) return steps;
  if (steps.value.length === 0) return known(undefined);
  const ownExpected = running.one.map((power) => scale(power, running.demand));
  const compiled = steps.value.map((step) => {
    const power = shareOnLines(
      lagging(running.oneVa * step.multiple, step.powerFactor),
      running.on,
      supply.directions,
    );
    return {
      durationS: step.durationS,
      added: power.map((one, line) => subtract(one, ownExpected[line] ?? ZERO)),
      together: power.map((one) => scale(one, running.quantity)),
    };
  });
  return known({
    label: item.name === circuit.name ? item.name : `${item.name} (${circuit.name})`,
    path,
    steps: compiled,
    running: running.connected,
    expected: running.expected,
  });
}

/** Sums `parts` into `totals`, line by line, in place: `totals` belongs to the caller's own loop. */
export function accumulate(totals: Complex[], parts: readonly Complex[]): void {
  for (let line = 0; line < totals.length; line += 1) {
    const part = parts[line];
    const total = totals[line];
    if (part !== undefined && total !== undefined) totals[line] = add(total, part);
  }
}
