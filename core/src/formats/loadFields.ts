import type { z } from 'zod';
import { type Circuit, importance, type Item, itemSchema, startClass } from '../design/schema.ts';
import { CODE_LETTERS } from '../codes/codeLetters.ts';
import { readFigure } from '../words/figure.ts';
import { importanceWord, isEnergy, powerScale, startWord } from './loadWords.ts';

/** What a column of a loads sheet can mean. */
export type LoadField =
  | 'circuit'
  | 'lines'
  | 'partition'
  | 'startDelayS'
  | 'item'
  | 'quantity'
  | 'runningW'
  | 'powerFactor'
  | 'startClass'
  | 'startMultiple'
  | 'startDurationS'
  | 'startPowerFactor'
  | 'lockedRotorA'
  | 'codeLetter'
  | 'horsepower'
  | 'demandFactor'
  | 'hoursPerDay'
  | 'runsFromH'
  | 'runsToH'
  | 'importance'
  | 'longestInterruptionMs';

export interface LoadFieldInfo {
  readonly field: LoadField;
  readonly title: string;
  /** Headings, in small letters without signs, by which the column is recognised. */
  readonly known: readonly string[];
}

/** All fields with the headings an export writes and an import recognises. */
export const LOAD_FIELDS: readonly LoadFieldInfo[] = [
  {
    field: 'circuit',
    title: 'Circuit',
    known: ['circuit', 'circuitname', 'circuitno', 'way', 'feeder', 'breaker', 'mcb'],
  },
  { field: 'lines', title: 'Lines', known: ['lines', 'line', 'phase', 'phases', 'ph', 'l'] },
  {
    field: 'partition',
    title: 'Board',
    known: ['board', 'partition', 'output', 'backup', 'backedup', 'panel'],
  },
  { field: 'startDelayS', title: 'Start delay s', known: ['startdelays', 'startdelay', 'delay'] },
  {
    field: 'item',
    title: 'Item',
    known: ['item', 'appliance', 'equipment', 'name', 'description', 'device', 'consumer', 'what', 'load'],
  },
  {
    field: 'quantity',
    title: 'Quantity',
    known: ['quantity', 'qty', 'count', 'number', 'no', 'nr', 'pcs', 'pieces', 'units'],
  },
  {
    field: 'runningW',
    title: 'Running W',
    known: [
      'runningw',
      'w',
      'kw',
      'watt',
      'watts',
      'watteach',
      'wattseach',
      'power',
      'powerw',
      'powerkw',
      'powereach',
      'p',
      'pw',
      'pkw',
      'load',
      'loadw',
      'loadkw',
      'ratedw',
      'ratedkw',
      'ratedpower',
      'rating',
      'ratingw',
      'each',
      'eachw',
      'wattage',
    ],
  },
  { field: 'powerFactor', title: 'Power factor', known: ['powerfactor', 'pf', 'cosphi', 'cos', 'cosf'] },
  {
    field: 'startClass',
    title: 'Start class',
    known: ['startclass', 'start', 'starting', 'type', 'kind', 'starttype', 'loadtype'],
  },
  { field: 'startMultiple', title: 'Start multiple', known: ['startmultiple', 'inrush', 'startx'] },
  { field: 'startDurationS', title: 'Start s', known: ['starts', 'startduration', 'startdurations'] },
  { field: 'startPowerFactor', title: 'Start pf', known: ['startpf', 'startpowerfactor'] },
  { field: 'lockedRotorA', title: 'Locked-rotor A', known: ['lockedrotora', 'lra', 'lockedrotor'] },
  { field: 'codeLetter', title: 'Code letter', known: ['codeletter', 'code'] },
  { field: 'horsepower', title: 'Horsepower', known: ['horsepower', 'hp'] },
  { field: 'demandFactor', title: 'Demand', known: ['demand', 'demandfactor', 'diversity'] },
  {
    field: 'hoursPerDay',
    title: 'Hours per day',
    known: ['hoursperday', 'hday', 'hours', 'hd', 'hrs', 'hrsday', 'hoursday', 'h'],
  },
  { field: 'runsFromH', title: 'From h', known: ['fromh', 'from'] },
  { field: 'runsToH', title: 'To h', known: ['toh', 'to', 'until'] },
  { field: 'importance', title: 'Importance', known: ['importance', 'priority', 'essential', 'critical'] },
  {
    field: 'longestInterruptionMs',
    title: 'Longest break ms',
    known: ['longestbreakms', 'break', 'breakms', 'interruptionms'],
  },
];

const plain = (heading: string): string => heading.toLowerCase().replace(/[^a-z]/g, '');

/** Which column means what, by its heading; a heading that says nothing to us, or speaks of energy, is left open. */
export function guessMapping(headings: readonly string[]): Partial<Record<LoadField, number>> {
  const mapping: Partial<Record<LoadField, number>> = {};
  for (const { field, known } of LOAD_FIELDS) {
    // The heading that comes first in the list of a field is the surest: "item" before "load".
    const at = known
      .map((one) => headings.findIndex((heading) => plain(heading) === one && !isEnergy(heading)))
      .find((found) => found >= 0 && !Object.values(mapping).includes(found));
    if (at !== undefined) mapping[field] = at;
  }
  return mapping;
}

/** How many rows are looked at for the headings: sheets often begin with a title. */
const HEADING_ROWS = 12;

/** The row that holds the headings, counted from 0: the one in which most columns are recognised. */
export function guessHeadingRow(rows: readonly (readonly string[])[]): number {
  let best = { row: 0, found: 0 };
  rows.slice(0, HEADING_ROWS).forEach((cells, row) => {
    const found = Object.keys(guessMapping(cells)).length;
    if (found > best.found) best = { row, found };
  });
  return best.row;
}

const NUMBERS = new Set<LoadField>([
  'quantity',
  'runningW',
  'powerFactor',
  'startMultiple',
  'startDurationS',
  'startPowerFactor',
  'lockedRotorA',
  'horsepower',
  'demandFactor',
  'hoursPerDay',
  'runsFromH',
  'runsToH',
  'longestInterruptionMs',
]);
const CHOICES: Partial<Record<LoadField, readonly string[]>> = {
  startClass: startClass.options,
  importance: importance.options,
  codeLetter: CODE_LETTERS,
};

const itemFigures = itemSchema.omit({ id: true, name: true });
/** What a row can say about an item besides its name. */
export type ItemFigures = z.infer<typeof itemFigures>;

/** What a row says about its item, and the cells that could not be read: those stay not known. */
export interface ItemCells {
  readonly figures: ItemFigures;
  readonly left: readonly string[];
  /** The fields of those cells: no default may stand in for what somebody has written there. */
  readonly unread: ReadonlySet<LoadField>;
}

type CellRead = { readonly value: unknown } | { readonly reason: string };

function readNumberCell(field: LoadField, title: string, text: string, scale: number): CellRead {
  const unit = field === 'runningW' ? powerScale(text) : 1;
  if (unit === undefined) return { reason: `${title}: "${text.slice(0, 30)}" is an energy, not a power` };
  // "1.2 kW", "350W", "0,85", "50 %": the unit that a cell states goes before that of its heading.
  const bare = text.replace(/\s*(kw|watts?|w|va|h|hrs?|hours?|ms|s|a|hp|%)\.?$/i, '');
  const figure = readFigure(bare);
  if (figure === undefined) return { reason: `${title}: "${text.slice(0, 30)}" is not a number` };
  if (/%$/.test(text.trim())) return { value: figure / 100 };
  if (field !== 'runningW') return { value: figure };
  const states = /[a-z]/i.test(text);
  return { value: Number((figure * (states ? unit : scale)).toPrecision(12)) };
}

function readChoiceCell(field: LoadField, title: string, text: string): CellRead {
  const choices = CHOICES[field] ?? [];
  const wanted = text.toLowerCase().replace(/[\s_]+/g, '-');
  const found =
    choices.find((choice) => choice.toLowerCase() === wanted) ??
    (field === 'startClass' ? startWord(text) : field === 'importance' ? importanceWord(text) : undefined);
  return found === undefined
    ? { reason: `${title}: "${text.slice(0, 30)}" is not one of ${choices.slice(0, 4).join(', ')}, …` }
    : { value: found };
}

/** Reads the item fields of a row. A cell that cannot be read is named and left not known; empty cells say nothing. */
export function readItemCells(
  cellOf: (field: LoadField) => string,
  scaleOf: (field: LoadField) => number = () => 1,
): ItemCells {
  const values: Record<string, unknown> = {};
  const left: string[] = [];
  const unread = new Set<LoadField>();
  const leave = (field: LoadField, reason: string): void => {
    left.push(reason);
    unread.add(field);
  };
  for (const { field, title } of LOAD_FIELDS) {
    const text = cellOf(field).trim();
    if (text === '' || (!NUMBERS.has(field) && CHOICES[field] === undefined)) continue;
    const read = NUMBERS.has(field)
      ? readNumberCell(field, title, text, scaleOf(field))
      : readChoiceCell(field, title, text);
    if ('reason' in read) leave(field, read.reason);
    else if (itemFigures.safeParse({ [field]: read.value }).success) values[field] = read.value;
    else leave(field, `${title}: ${String(read.value)} is outside what is possible`);
  }
  return { figures: itemFigures.parse(values), left, unread };
}

/** What a cell of an export says. */
export function showField(
  field: LoadField,
  circuit: Circuit,
  item: Item | undefined,
  partition: string,
): string {
  switch (field) {
    case 'circuit':
      return circuit.name;
    case 'lines':
      return circuit.lines?.join('+') ?? '';
    case 'partition':
      return partition;
    case 'startDelayS':
      return circuit.startDelayS === undefined ? '' : String(circuit.startDelayS);
    case 'item':
      return item?.name ?? '';
    default: {
      const value = item?.[field];
      return value === undefined ? '' : String(value);
    }
  }
}
