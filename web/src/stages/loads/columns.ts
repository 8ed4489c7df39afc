import {
  BOARD_NAMES,
  boardCalled,
  type Circuit,
  CODE_LETTERS,
  type Design,
  formatNumber,
  type Item,
  importanceSchema,
  type Line,
  readLines,
  START_CLASS_ROWS,
  startClassSchema,
  SUPPLY_LINES,
  type SupplyKind,
} from '@bastion/core';
import { newId } from '../../state/job.ts';
import { readNumber } from '../../ui/readNumber.ts';
import { put } from '../../state/put.ts';

/** A row of the survey table: a circuit, or an item on it. */
export type Row =
  | { readonly kind: 'circuit'; readonly circuit: Circuit; readonly board?: string | undefined }
  | { readonly kind: 'item'; readonly circuit: Circuit; readonly item: Item };

export const rowKey = (row: Row): string =>
  row.kind === 'circuit' ? row.circuit.id : `${row.circuit.id}/${row.item.id}`;

/** What happens to typed text: it was taken over, or a sentence says why it cannot be. */
export type Taken = { readonly ok: true } | { readonly ok: false; readonly message: string };
const TAKEN: Taken = { ok: true };

/** What the choices of a column depend on. */
export interface TableAbout {
  readonly supply: SupplyKind | undefined;
  readonly partitions: Design['partitions'];
}

export interface Column {
  readonly key: string;
  readonly title: string;
  readonly unit?: string;
  readonly hint: string;
  readonly numeric: boolean;
  readonly on: 'circuit' | 'item' | 'both';
  /** Shown only when somebody asks for it. */
  readonly isExtra?: true;
  /** Worked out or noted elsewhere: shown, never typed here. */
  readonly isReadOnly?: true;
  /** The choices of a list column; the supply decides which lines there are. */
  readonly options?: (about: TableAbout) => readonly { readonly value: string; readonly label: string }[];
  readonly show: (row: Row) => string;
  /** What stands in while the cell is empty, in quiet ink: such a cell may stay empty. */
  readonly standIn?: (row: Row) => string;
  /** Puts what was typed into a drafted row; what belongs to the design around it may be added there. */
  readonly take: (target: Circuit | Item, text: string, draft: Design) => Taken;
}

type StartField = 'startMultiple' | 'startDurationS' | 'startPowerFactor';
type NumberField =
  | StartField
  | 'quantity'
  | 'runningW'
  | 'powerFactor'
  | 'demandFactor'
  | 'hoursPerDay'
  | 'runsFromH'
  | 'runsToH'
  | 'lockedRotorA'
  | 'horsepower'
  | 'longestInterruptionMs';

function numberColumn(key: NumberField, title: string, hint: string, unit?: string): Column {
  return {
    key,
    title,
    hint,
    numeric: true,
    on: 'item',
    ...(unit === undefined ? {} : { unit }),
    show: (row) => (row.kind === 'item' && row.item[key] !== undefined ? String(row.item[key]) : ''),
    take: (target, text) => {
      const value = text.trim() === '' ? undefined : readNumber(text);
      if (value === undefined && text.trim() !== '')
        return { ok: false, message: `"${text}" is not a number.` };
      put(target as Item, key, value);
      return TAKEN;
    },
  };
}

function listColumn<K extends 'startClass' | 'importance' | 'codeLetter' | 'powerFactorKind'>(
  key: K,
  title: string,
  hint: string,
  values: readonly NonNullable<Item[K]>[],
  label: (value: string) => string,
): Column {
  return {
    key,
    title,
    hint,
    numeric: false,
    on: 'item',
    options: () => values.map((value) => ({ value, label: label(value) })),
    show: (row) => (row.kind === 'item' ? (row.item[key] ?? '') : ''),
    take: (target, text) => {
      const found = values.find((value) => value.toLowerCase() === text.trim().toLowerCase());
      if (found === undefined && text.trim() !== '')
        return { ok: false, message: `"${text}" is not one of the choices.` };
      put(target as Item, key, found as Item[K]);
      return TAKEN;
    },
  };
}

const classRows = new Map<string, (typeof START_CLASS_ROWS)[number]>(
  START_CLASS_ROWS.map((row) => [row.startClass, row]),
);
const CLASS_FIELD = {
  startMultiple: 'multipleOfRunningVA',
  startDurationS: 'durationS',
  startPowerFactor: 'startingPowerFactor',
} as const;

/** An own start figure of an item; while it has none, the figure of its class stands in. */
function startColumn(key: StartField, title: string, hint: string, unit?: string): Column {
  return {
    ...numberColumn(key, title, hint, unit),
    standIn: (row) => {
      const found =
        row.kind === 'item' && row.item.startMultiple === undefined
          ? classRows.get(row.item.startClass ?? '')
          : undefined;
      return found === undefined ? '' : String(found[CLASS_FIELD[key]]);
    },
  };
}

const LINE_CHOICES: readonly (readonly Line[])[] = [
  ['L1'],
  ['L2'],
  ['L3'],
  ['L1', 'L2'],
  ['L2', 'L3'],
  ['L1', 'L3'],
  ['L1', 'L2', 'L3'],
];
const lineText = (lines: readonly Line[] | undefined): string => lines?.join('+') ?? '';

const linesColumn: Column = {
  key: 'lines',
  title: 'Line(s)',
  hint: 'One: line to neutral. Two: line to line. Three: three-phase.',
  numeric: false,
  on: 'circuit',
  options: ({ supply }) => {
    const has = supply === undefined ? SUPPLY_LINES['three-phase'] : SUPPLY_LINES[supply];
    return LINE_CHOICES.filter((lines) => lines.every((line) => has.includes(line))).map((lines) => ({
      value: lineText(lines),
      label: lineText(lines),
    }));
  },
  show: (row) => (row.kind === 'circuit' ? lineText(row.circuit.lines) : ''),
  take: (target, text, { site }) => {
    const read = readLines(text, SUPPLY_LINES[site.supply ?? 'three-phase']);
    if (!read.ok) return { ok: false, message: `${read.reason}.` };
    put(target as Circuit, 'lines', read.value);
    return TAKEN;
  },
};

const nameColumn: Column = {
  key: 'name',
  title: 'Circuit / item',
  hint: 'What it is called on site.',
  numeric: false,
  on: 'both',
  show: (row) => (row.kind === 'circuit' ? row.circuit.name : row.item.name),
  take: (target, text) => {
    if (text.trim() === '') return { ok: false, message: 'A name is needed.' };
    target.name = text.trim();
    return TAKEN;
  },
};

const boardColumn: Column = {
  key: 'partitionId',
  title: 'Board',
  hint: 'Where it hangs: on the grid side, on a backup output, or on a shed stage.',
  numeric: false,
  on: 'circuit',
  options: ({ partitions }) => {
    const names = partitions.map(({ name }) => name);
    const usual = [BOARD_NAMES.grid, BOARD_NAMES.backup].filter((name) => !names.includes(name));
    return [...names, ...(partitions.length === 0 ? usual : [])].map((name) => ({
      value: name,
      label: name,
    }));
  },
  show: (row) => (row.kind === 'circuit' ? (row.board ?? '') : ''),
  take: (target, text, draft) => {
    if (!('items' in target)) return TAKEN;
    if (text.trim() === '') {
      put(target, 'partitionId', undefined);
      return TAKEN;
    }
    const board = boardCalled(draft, text, () => newId('p'));
    if (board === undefined) return { ok: false, message: `"${text}" is the name of no board.` };
    if (!draft.partitions.some(({ id }) => id === board.id)) draft.partitions.push(board);
    target.partitionId = board.id;
    return TAKEN;
  },
};

const delayColumn: Column = {
  key: 'startDelayS',
  title: 'Delay',
  unit: 's',
  hint: 'Closed this long after supply returns in island.',
  numeric: true,
  on: 'circuit',
  standIn: () => '',
  show: (row) =>
    row.kind === 'circuit' && row.circuit.startDelayS !== undefined ? String(row.circuit.startDelayS) : '',
  take: (target, text) => {
    const value = text.trim() === '' ? undefined : readNumber(text);
    if (value === undefined && text.trim() !== '')
      return { ok: false, message: `"${text}" is not a number.` };
    put(target as Circuit, 'startDelayS', value);
    return TAKEN;
  },
};

const fixedColumn: Column = {
  key: 'lineFixed',
  title: 'Line fixed',
  hint: 'Yes: balancing leaves this circuit on its line.',
  numeric: false,
  on: 'circuit',
  isExtra: true,
  standIn: () => '',
  options: () => [
    { value: 'yes', label: 'yes' },
    { value: 'no', label: 'no' },
  ],
  show: (row) => (row.kind === 'circuit' ? (row.circuit.lineFixed ?? '') : ''),
  take: (target, text) => {
    const wanted = text.trim().toLowerCase();
    if (wanted !== '' && wanted !== 'yes' && wanted !== 'no')
      return { ok: false, message: `"${text}" is neither yes nor no.` };
    put(target as Circuit, 'lineFixed', wanted === '' ? undefined : wanted);
    return TAKEN;
  },
};

/** Highest clamp reading of each line of a circuit, as "L1 6.4". */
function clampText(circuit: Circuit): string {
  const highest = new Map<Line, number>();
  for (const { line, currentA } of circuit.clampReadings ?? [])
    highest.set(line, Math.max(currentA, highest.get(line) ?? 0));
  return [...highest].map(([line, currentA]) => `${line} ${formatNumber(currentA)}`).join(', ');
}

const measuredColumn: Column = {
  key: 'clampReadings',
  title: 'Clamped',
  unit: 'A',
  hint: 'Highest clamp reading of each line. Logged below the table; it beats the estimate.',
  numeric: true,
  on: 'circuit',
  isReadOnly: true,
  standIn: () => '',
  show: (row) => (row.kind === 'circuit' ? clampText(row.circuit) : ''),
  take: () => ({ ok: false, message: 'Clamp readings are logged below the table.' }),
};

const extra = (column: Column): Column => ({ ...column, isExtra: true, standIn: () => '' });

export const COLUMNS: readonly Column[] = [
  nameColumn,
  linesColumn,
  boardColumn,
  numberColumn('quantity', 'Qty', 'How many of them.'),
  numberColumn('runningW', 'Each', 'Running power of one.', 'W'),
  numberColumn('powerFactor', 'pf', 'Power factor up to 1; lagging unless stated otherwise.'),
  listColumn(
    'startClass',
    'Start',
    'How it starts.',
    startClassSchema.options,
    (value) => `${value}: ${classRows.get(value)?.meaning ?? ''}`,
  ),
  startColumn(
    'startMultiple',
    'Start ×',
    'Own starting VA over running VA. With it, duration and power factor are needed.',
  ),
  startColumn('startDurationS', 'for', 'How long the start lasts.', 's'),
  startColumn('startPowerFactor', 'at pf', 'Power factor while starting.'),
  numberColumn('demandFactor', 'Demand', 'Share of it that runs at the expected peak, 0 to 1.'),
  numberColumn('hoursPerDay', 'h/day', 'Hours a day it runs: for autonomy.'),
  listColumn(
    'importance',
    'Importance',
    'How much it matters in an outage.',
    importanceSchema.options,
    (value) => value,
  ),
  numberColumn('longestInterruptionMs', 'Break', 'Longest interruption it takes.', 'ms'),
  delayColumn,
  measuredColumn,
  fixedColumn,
  extra(
    listColumn(
      'powerFactorKind',
      'pf is',
      'Whether the current lags or leads the voltage. Without it: lagging.',
      ['lagging', 'leading'],
      (value) => value,
    ),
  ),
  extra(numberColumn('lockedRotorA', 'LRA', 'Locked-rotor current on the data plate, each line.', 'A')),
  extra(
    listColumn(
      'codeLetter',
      'Code',
      'Code letter on the data plate: locked-rotor kVA per horsepower.',
      CODE_LETTERS,
      (value) => value,
    ),
  ),
  extra(numberColumn('horsepower', 'hp', 'Horsepower, to go with the code letter.', 'hp')),
  extra(numberColumn('runsFromH', 'From', 'Hour of the day from which it may run.', 'h')),
  extra(numberColumn('runsToH', 'To', 'Hour until which it may run; may lie past midnight.', 'h')),
];

/** Whether a column has anything to say on a row. */
export const applies = (column: Column, row: Row): boolean => column.on === 'both' || column.on === row.kind;

/** Whether something can be typed into a cell. */
export const isTypable = (column: Column, row: Row): boolean =>
  applies(column, row) && column.isReadOnly !== true;

/** The place of a cell in the design, for links that lead to it. */
export function cellField(row: Row, column: Column): string {
  const base = `circuits/${row.circuit.id}`;
  return row.kind === 'circuit' ? `${base}/${column.key}` : `${base}/items/${row.item.id}/${column.key}`;
}
