import { CODE_LETTER_KVA_PER_HP } from '../../codes/codeLetters.ts';
import { type StartStep, startSteps } from '../../codes/starts.ts';
import type { Line } from '../../values/quantities.ts';
import type { Path } from '../../values/problem.ts';
import type { Circuit, Item } from '../../installation/facts.ts';
import type { Complex } from '../../network/complex.ts';
import { shareOnLines } from '../../network/phasors.ts';
import { reactiveVar } from './reactive.ts';
import type { Supply } from '../../installation/supply.ts';

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
  const oneVar = reactiveVar(runningW, powerFactor, item.powerFactorKind);
  return { circuit, item, factors: factorsOf(circuit.lines), oneVa, oneW: runningW, oneVar, quantity };
}

const NO_STEPS: readonly StartStep[] = [];

/** Where the figures of a start come from; the first that is there counts. */
export type StartSource = 'own multiple' | 'locked-rotor current' | 'code letter' | 'start class';

export function startSource(item: Item): StartSource | undefined {
  if (item.startMultiple !== undefined) return 'own multiple';
  if (item.lockedRotorA !== undefined) return 'locked-rotor current';
  if (item.codeLetter !== undefined) return 'code letter';
  return item.startClass === undefined ? undefined : 'start class';
}

/** Volts that a load of this many lines stands on, times the factor of its power: S = I · this. */
function powerPerAmpere(circuit: Circuit, supply: Supply): number | undefined {
  if (circuit.lines === undefined || supply.lineVoltageV === undefined) return undefined;
  if (circuit.lines.length === 1) return supply.lineVoltageV;
  if (circuit.lines.length === 3) return 3 * supply.lineVoltageV;
  return supply.lineVoltageV * (supply.lines.length === 2 ? 2 : Math.sqrt(3));
}

/**
 * Starting VA from the data plate: S = V · I_LR on one line, V_LL · I_LR on two, √3 · V_LL · I_LR on three; or kVA per
 * horsepower of the code letter (upper end of its band) times horsepower.
 */
export function plateStartVa(
  circuit: Circuit,
  item: Item,
  supply: Supply,
  missing: Path[],
): number | undefined {
  if (item.lockedRotorA !== undefined) {
    const factor = powerPerAmpere(circuit, supply);
    if (factor === undefined && supply.lineVoltageV === undefined) missing.push(['site', 'lineVoltageV']);
    return factor === undefined ? undefined : factor * item.lockedRotorA;
  }
  if (item.codeLetter === undefined) return undefined;
  if (item.horsepower === undefined) {
    missing.push([...itemPath(circuit, item), 'horsepower']);
    return undefined;
  }
  return CODE_LETTER_KVA_PER_HP[item.codeLetter] * 1000 * item.horsepower;
}

/** Duration and power factor of an own start, or those of the class where they are not given. */
function shapeOfStart(
  circuit: Circuit,
  item: Item,
  multiple: number,
  classMayHelp: boolean,
  missing: Path[],
): readonly StartStep[] | undefined {
  const [classStep] = classMayHelp && item.startClass !== undefined ? startSteps(item.startClass) : [];
  const durationS = item.startDurationS ?? classStep?.durationS;
  const powerFactor = item.startPowerFactor ?? classStep?.powerFactor;
  if (durationS !== undefined && powerFactor !== undefined)
    return durationS === 0 ? NO_STEPS : [{ multiple, durationS, powerFactor }];
  const path = itemPath(circuit, item);
  if (durationS === undefined) missing.push([...path, 'startDurationS']);
  if (powerFactor === undefined) missing.push([...path, 'startPowerFactor']);
  return undefined;
}

/**
 * The start of an item, by the first source it has: its own multiple (with its own duration and power factor), its data
 * plate (duration and power factor from the class where not given), its class. Undefined with what is missing added to
 * `missing`.
 */
export function stepsOfStart(
  circuit: Circuit,
  item: Item,
  supply: Supply,
  missing: Path[],
): readonly StartStep[] | undefined {
  switch (startSource(item)) {
    case undefined:
      missing.push([...itemPath(circuit, item), 'startClass']);
      return undefined;
    case 'own multiple':
      return shapeOfStart(circuit, item, item.startMultiple ?? 1, false, missing);
    case 'start class':
      return item.startClass === undefined ? undefined : startSteps(item.startClass);
    default: {
      const startVa = plateStartVa(circuit, item, supply, missing);
      const { runningW, powerFactor } = item;
      if (runningW === 0) missing.push([...itemPath(circuit, item), 'runningW']);
      if (startVa === undefined || runningW === undefined || powerFactor === undefined || runningW === 0)
        return undefined;
      return shapeOfStart(circuit, item, (startVa * powerFactor) / runningW, true, missing);
    }
  }
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
