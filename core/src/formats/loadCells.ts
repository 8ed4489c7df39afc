import type { z } from 'zod';
import { importance, itemSchema, startClass } from '../design/schema.ts';
import { CODE_LETTERS } from '../codes/codeLetters.ts';
import { type DecimalSign, isAmbiguous, readFigure } from '../words/figure.ts';
import { LOAD_FIELDS, type LoadField, type LoadFieldInfo } from './loadFields.ts';
import { importanceWord, isEnergy, startWord } from './loadWords.ts';

/** Fields whose cells hold figures. */
export const NUMBERS: ReadonlySet<LoadField> = new Set<LoadField>([
  'runningVa',
  'runningA',
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
  /** Apparent power, VA, that is watts once the power factor is known: where the row states none. */
  readonly apparentVa?: number;
  /** The fields of those cells: no default may stand in for what somebody has written there. */
  readonly unread: ReadonlySet<LoadField>;
}

type CellRead = { readonly value: unknown } | { readonly reason: string };

const HOURS = { h: 1, hr: 1, hrs: 1, hour: 1, hours: 1, min: 1 / 60, mins: 1 / 60, minutes: 1 / 60 };
const WATTS = { w: 1, watt: 1, watts: 1, kw: 1000 };
const SECONDS = { s: 1, sec: 1, seconds: 1, ms: 0.001 };
const AMPERES = { a: 1, amp: 1, amps: 1 };
const SHARE = { '%': 0.01 };

/** The units that a cell of a field may state, each with what it makes of the figure. */
const CELL_UNITS: Partial<Record<LoadField, Readonly<Record<string, number>>>> = {
  quantity: { pcs: 1, pc: 1, x: 1, off: 1, no: 1 },
  runningW: WATTS,
  runningVa: { va: 1, kva: 1000 },
  runningA: AMPERES,
  powerFactor: SHARE,
  startMultiple: { x: 1, '×': 1 },
  startDurationS: SECONDS,
  startPowerFactor: SHARE,
  lockedRotorA: AMPERES,
  horsepower: { hp: 1 },
  demandFactor: SHARE,
  hoursPerDay: HOURS,
  runsFromH: HOURS,
  runsToH: HOURS,
  longestInterruptionMs: { ms: 1, s: 1000, sec: 1000 },
};

/** How the figures of a sheet are written. */
export interface SheetSigns {
  /** Which sign parts the fraction, where the sheet tells. */
  readonly decimal: DecimalSign | undefined;
  /** What the heading of a field makes of its figures. */
  readonly scaleOf: (field: LoadField) => number;
}

const PLAIN: SheetSigns = { decimal: undefined, scaleOf: () => 1 };

/** A cell as its figure and the unit behind it. */
export function figureAndUnit(text: string): { readonly number: string; readonly unit: string } {
  const [, number = '', unit = ''] = /^(.*?)\s*([a-z%×]*)\.?$/is.exec(text.trim()) ?? [];
  return { number, unit };
}

/** "1.2 or 1200": both that a figure may be. */
const twoWays = (number: string): string =>
  (['.', ','] as const)
    .map((sign) => readFigure(number, sign) ?? 0)
    .sort((a, b) => a - b)
    .join(' or ');

/** "1.2 kW", "350W", "0,85", "50 %": the unit that a cell states goes before that of its heading, and has to be one of its field. */
function readNumberCell(
  { field, title }: LoadFieldInfo,
  text: string,
  { decimal, scaleOf }: SheetSigns,
): CellRead {
  const told = `${title}: "${text.slice(0, 30)}"`;
  const { number, unit } = figureAndUnit(text);
  const figure = readFigure(number, decimal);
  const isPower = field === 'runningW' || field === 'runningVa';
  if (isPower && isEnergy(text)) return { reason: `${told} is an energy, not a power` };
  if (figure === undefined) return { reason: `${told} is not a number` };
  if (decimal === undefined && isAmbiguous(number)) return { reason: `${told} may be ${twoWays(number)}` };
  if (unit === '') return { value: isPower ? rounded(figure * scaleOf(field)) : figure };
  const times = CELL_UNITS[field]?.[unit.toLowerCase()];
  if (times === undefined) return { reason: `${told} is in ${unit}, which ${title} is not` };
  return { value: rounded(figure * times) };
}

/** Without the last digits that a change of unit brings. */
const rounded = (figure: number): number => Number(figure.toPrecision(12));

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

/** S = V · I of the lines that a load hangs on, VA for each ampere in its lines; undefined while that is not known. */
export type VoltsThrough = number | undefined;

/** Volt-amperes, or amperes in the lines of the row, where it states no watts. */
function readApparent(
  cellOf: (field: LoadField) => string,
  volts: VoltsThrough,
  signs: SheetSigns,
): CellRead | undefined {
  const va = cellOf('runningVa').trim();
  if (va !== '') return readNumberCell({ field: 'runningVa', title: 'Running VA', known: [] }, va, signs);
  const amperes = cellOf('runningA').trim();
  if (amperes === '') return undefined;
  const read = readNumberCell({ field: 'runningA', title: 'Running A', known: [] }, amperes, signs);
  if ('reason' in read) return read;
  if (volts !== undefined) return { value: Number(read.value) * volts };
  return {
    reason: `Running A: "${amperes.slice(0, 30)}" says no power while it is not known on how many lines it hangs, and at what voltage`,
  };
}

const isApparentField = (field: LoadField): boolean => field === 'runningVa' || field === 'runningA';

/** Reads the item fields of a row. A cell that cannot be read is named and left not known; empty cells say nothing. */
export function readItemCells(
  cellOf: (field: LoadField) => string,
  signs: SheetSigns = PLAIN,
  volts?: VoltsThrough,
): ItemCells {
  const values: Record<string, unknown> = {};
  const left: string[] = [];
  const unread = new Set<LoadField>();
  const leave = (field: LoadField, reason: string): void => {
    left.push(reason);
    unread.add(field);
  };
  for (const info of LOAD_FIELDS) {
    const { field, title } = info;
    const text = cellOf(field).trim();
    if (text === '' || isApparentField(field) || (!NUMBERS.has(field) && CHOICES[field] === undefined))
      continue;
    const read = NUMBERS.has(field) ? readNumberCell(info, text, signs) : readChoiceCell(field, title, text);
    if ('reason' in read) leave(field, read.reason);
    else if (itemFigures.safeParse({ [field]: read.value }).success) values[field] = read.value;
    else leave(field, `${title}: ${String(read.value)} is outside what is possible`);
  }
  const apparent = values.runningW === undefined ? readApparent(cellOf, volts, signs) : undefined;
  if (apparent === undefined) return { figures: itemFigures.parse(values), left, unread };
  if ('reason' in apparent) leave('runningW', apparent.reason);
  else if (itemFigures.safeParse({ runningW: apparent.value }).success)
    // P = S · cos φ, once that is known; until then no power of a library stands in for it.
    return {
      figures: itemFigures.parse(values),
      left,
      unread: unread.add('runningW'),
      apparentVa: Number(apparent.value),
    };
  else leave('runningW', `Running VA: ${String(apparent.value)} is outside what is possible`);
  return { figures: itemFigures.parse(values), left, unread };
}
