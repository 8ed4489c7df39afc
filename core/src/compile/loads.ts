import { type StartStep, startSteps } from '../codes/starts.ts';
import type { Line } from '../design/quantities.ts';
import type { Path } from '../design/problem.ts';
import type { Circuit, Item } from '../design/schema.ts';
import type { Complex } from '../network/complex.ts';
import { shareOnLines } from '../network/phasors.ts';
import type { Supply } from './supply.ts';

/**
 * How a load on some lines shows on each line: its apparent power times a factor. Sharing is linear, so each way of
 * connecting is worked out once for a supply, and an item costs two multiplications a line.
 */
export type LineFactors = readonly Complex[];

/** Looks up the factors of a connection, made on first use. */
export function factorFinder(supply: Supply): (lines: readonly Line[]) => LineFactors {
  const made = new Map<string, LineFactors>();
  return (lines) => {
    const key = lines.join();
    let factors = made.get(key);
    if (factors === undefined) {
      const on = lines.map((line) => supply.lines.indexOf(line));
      factors = shareOnLines({ re: 1, im: 0 }, on, supply.directions);
      made.set(key, factors);
    }
    return factors;
  };
}

/** An item whose running load is known: one of them draws `oneW` and `oneVar`. */
export interface RunningItem {
  readonly circuit: Circuit;
  readonly item: Item;
  readonly factors: LineFactors;
  readonly oneVa: number;
  readonly oneW: number;
  readonly oneVar: number;
  readonly quantity: number;
}

export const itemPath = (circuit: Circuit, item: Item): Path => ['circuits', circuit.id, 'items', item.id];

/** The running load of an item, or undefined with the missing fields added to `missing`. */
export function runningItem(
  circuit: Circuit,
  item: Item,
  factorsOf: (lines: readonly Line[]) => LineFactors,
  missing: Path[],
): RunningItem | undefined {
  const { quantity, runningW, powerFactor } = item;
  if (
    circuit.lines === undefined ||
    quantity === undefined ||
    runningW === undefined ||
    powerFactor === undefined
  ) {
    const path = itemPath(circuit, item);
    if (circuit.lines === undefined) missing.push(['circuits', circuit.id, 'lines']);
    if (quantity === undefined) missing.push([...path, 'quantity']);
    if (runningW === undefined) missing.push([...path, 'runningW']);
    if (powerFactor === undefined) missing.push([...path, 'powerFactor']);
    return undefined;
  }
  const oneVa = runningW / powerFactor;
  const oneVar = oneVa * Math.sqrt(1 - powerFactor * powerFactor);
  return { circuit, item, factors: factorsOf(circuit.lines), oneVa, oneW: runningW, oneVar, quantity };
}

const NO_STEPS: readonly StartStep[] = [];

/** The start of an item: its own figures, or those of its class. Undefined with the missing fields added to `missing`. */
export function stepsOfStart(
  circuit: Circuit,
  item: Item,
  missing: Path[],
): readonly StartStep[] | undefined {
  if (item.startMultiple === undefined) {
    if (item.startClass !== undefined) return startSteps(item.startClass);
    missing.push([...itemPath(circuit, item), 'startClass']);
    return undefined;
  }
  const { startMultiple, startDurationS, startPowerFactor } = item;
  if (startDurationS !== undefined && startPowerFactor !== undefined) {
    if (startDurationS === 0) return NO_STEPS;
    return [{ multiple: startMultiple, durationS: startDurationS, powerFactor: startPowerFactor }];
  }
  const path = itemPath(circuit, item);
  if (startDurationS === undefined) missing.push([...path, 'startDurationS']);
  if (startPowerFactor === undefined) missing.push([...path, 'startPowerFactor']);
  return undefined;
}

/** Average power of an item over the day, W; undefined with the missing fields added to `missing`. */
export function averageW(circuit: Circuit, item: Item, missing: Path[]): number | undefined {
  const { quantity, runningW, hoursPerDay } = item;
  if (quantity !== undefined && runningW !== undefined && hoursPerDay !== undefined) {
    return (quantity * runningW * hoursPerDay) / 24;
  }
  const path = itemPath(circuit, item);
  if (quantity === undefined) missing.push([...path, 'quantity']);
  if (runningW === undefined) missing.push([...path, 'runningW']);
  if (hoursPerDay === undefined) missing.push([...path, 'hoursPerDay']);
  return undefined;
}
