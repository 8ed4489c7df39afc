import type { z } from 'zod';
import { type Circuit, importance, type Item, itemSchema, startClass } from '../design/schema.ts';
import { CODE_LETTERS } from '../codes/codeLetters.ts';
import type { Line } from '../values/quantities.ts';
import { readFigure } from '../words/figure.ts';

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
  { field: 'circuit', title: 'Circuit', known: ['circuit', 'circuitname', 'way', 'feeder'] },
  { field: 'lines', title: 'Lines', known: ['lines', 'line', 'phase', 'phases'] },
  { field: 'partition', title: 'Partition', known: ['partition', 'board', 'output'] },
  { field: 'startDelayS', title: 'Start delay s', known: ['startdelays', 'startdelay', 'delay'] },
  { field: 'item', title: 'Item', known: ['item', 'load', 'appliance', 'equipment', 'name', 'description'] },
  { field: 'quantity', title: 'Quantity', known: ['quantity', 'qty', 'count', 'number'] },
  {
    field: 'runningW',
    title: 'Running W',
    known: ['runningw', 'w', 'watts', 'power', 'powerw', 'ratedw', 'each', 'eachw'],
  },
  { field: 'powerFactor', title: 'Power factor', known: ['powerfactor', 'pf', 'cosphi'] },
  { field: 'startClass', title: 'Start class', known: ['startclass', 'start', 'starting'] },
  { field: 'startMultiple', title: 'Start multiple', known: ['startmultiple', 'inrush', 'startx'] },
  { field: 'startDurationS', title: 'Start s', known: ['starts', 'startduration', 'startdurations'] },
  { field: 'startPowerFactor', title: 'Start pf', known: ['startpf', 'startpowerfactor'] },
  { field: 'lockedRotorA', title: 'Locked-rotor A', known: ['lockedrotora', 'lra', 'lockedrotor'] },
  { field: 'codeLetter', title: 'Code letter', known: ['codeletter', 'code'] },
  { field: 'horsepower', title: 'Horsepower', known: ['horsepower', 'hp'] },
  { field: 'demandFactor', title: 'Demand', known: ['demand', 'demandfactor', 'diversity'] },
  { field: 'hoursPerDay', title: 'Hours per day', known: ['hoursperday', 'hday', 'hours'] },
  { field: 'runsFromH', title: 'From h', known: ['fromh', 'from'] },
  { field: 'runsToH', title: 'To h', known: ['toh', 'to', 'until'] },
  { field: 'importance', title: 'Importance', known: ['importance', 'priority'] },
  {
    field: 'longestInterruptionMs',
    title: 'Longest break ms',
    known: ['longestbreakms', 'break', 'breakms', 'interruptionms'],
  },
];

const plain = (heading: string): string => heading.toLowerCase().replace(/[^a-z]/g, '');

/** Which column means what, by its heading; a heading that says nothing to us is left open. */
export function guessMapping(headings: readonly string[]): Partial<Record<LoadField, number>> {
  const mapping: Partial<Record<LoadField, number>> = {};
  for (const { field, known } of LOAD_FIELDS) {
    const at = headings.findIndex((heading) => known.includes(plain(heading)));
    if (at >= 0 && !Object.values(mapping).includes(at)) mapping[field] = at;
  }
  return mapping;
}

export type ReadCell<T> =
  { readonly ok: true; readonly value: T | undefined } | { readonly ok: false; readonly reason: string };
const taken = <T>(value: T | undefined): ReadCell<T> => ({ ok: true, value });

/** "L1", "l1+l2", "1", "L1 L2 L3", "3ph" as lines of a supply. */
export function readLines(text: string, has: readonly Line[]): ReadCell<Line[]> {
  const wanted = text.trim().toUpperCase();
  if (wanted === '') return taken<Line[]>(undefined);
  if (/^(3PH|3-PHASE|THREE-PHASE|3P)$/.test(wanted) && has.length === 3) return taken([...has]);
  const names = wanted.split(/[\s+,/&-]+/).map((part) => (/^\d$/.test(part) ? `L${part}` : part));
  const lines = has.filter((line) => names.includes(line));
  return lines.length === names.length
    ? taken(lines)
    : {
        ok: false,
        reason: `"${text.trim()}" names a line that this supply does not have (${has.join(', ')})`,
      };
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

/** Reads the item fields of a row; the first cell that cannot be read is the reason. Empty cells say nothing. */
export function readItemCells(cellOf: (field: LoadField) => string): ReadCell<ItemFigures> {
  const values: Record<string, unknown> = {};
  for (const { field, title } of LOAD_FIELDS) {
    const text = cellOf(field).trim();
    if (text === '') continue;
    const choices = CHOICES[field];
    if (NUMBERS.has(field)) {
      const value = readFigure(text);
      if (value === undefined)
        return { ok: false, reason: `${title}: "${text.slice(0, 30)}" is not a number` };
      values[field] = value;
    } else if (choices !== undefined) {
      const wanted = text.toLowerCase().replace(/[\s_]+/g, '-');
      const found = choices.find((choice) => choice.toLowerCase() === wanted);
      if (found === undefined)
        return {
          ok: false,
          reason: `${title}: "${text.slice(0, 30)}" is not one of ${choices.slice(0, 4).join(', ')}, …`,
        };
      values[field] = found;
    }
  }
  const parsed = itemFigures.safeParse(values);
  if (parsed.success) return taken(parsed.data);
  return { ok: false, reason: reasonOf(parsed.error, values) };
}

function reasonOf(error: z.ZodError, values: Readonly<Record<string, unknown>>): string {
  const [issue] = error.issues;
  const key = String(issue?.path[0] ?? '');
  const title = LOAD_FIELDS.find(({ field }) => field === key)?.title ?? key;
  return `${title}: ${String(values[key])} is outside what is possible`;
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
