import type { Circuit, Item } from '../design/schema.ts';
import { isApparent, isEnergy } from './loadWords.ts';

/** What a column of a loads sheet can mean. */
export type LoadField =
  | 'circuit'
  | 'lines'
  | 'poles'
  | 'voltageV'
  | 'partition'
  | 'deviceA'
  | 'startDelayS'
  | 'item'
  | 'quantity'
  | 'runningW'
  | 'runningVa'
  | 'runningA'
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
  {
    field: 'lines',
    title: 'Lines',
    known: ['lines', 'line', 'phase', 'phases', 'circuitphase', 'supplyphase', 'onphase', 'ph', 'leg', 'l'],
  },
  {
    field: 'voltageV',
    title: 'Voltage',
    known: ['voltage', 'voltagev', 'volts', 'v', 'ratedvoltage', 'supplyvoltage'],
  },
  { field: 'poles', title: 'Poles', known: ['poles', 'pole', 'noofpoles', 'numberofpoles', 'breakerpoles'] },
  {
    field: 'partition',
    title: 'Board',
    known: ['board', 'partition', 'output', 'backup', 'backedup', 'panel'],
  },
  {
    field: 'deviceA',
    title: 'Device A',
    known: [
      'devicea',
      'devicerating',
      'breakera',
      'breakeramps',
      'breakerrating',
      'breakersize',
      'mcba',
      'mcbrating',
      'fusea',
      'fuserating',
      'fusesize',
      'ocpd',
      'ocpda',
      'trip',
      'tripa',
    ],
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
      'consumption',
      'powerconsumption',
      'powerrating',
      'ratedwatts',
      'ratedwattage',
      'runningpower',
      'runningwatts',
      'nominalpower',
      'activepower',
      'realpower',
    ],
  },
  {
    field: 'runningVa',
    title: 'Running VA',
    known: ['runningva', 'va', 'kva', 'vaeach', 'loadva', 'powerva', 'ratedva', 'apparentpower'],
  },
  {
    field: 'runningA',
    title: 'Running A',
    known: [
      'runninga',
      'runningamps',
      'runningcurrent',
      'loada',
      'loadamps',
      'loadcurrent',
      'amps',
      'amp',
      'amperes',
      'current',
      'currenta',
      'ratedcurrent',
      'ratedamps',
      'fla',
      'fullloadamps',
      'fullloadcurrent',
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
    known: [
      'hoursperday',
      'hday',
      'hours',
      'hd',
      'hrs',
      'hrsday',
      'hoursday',
      'hrsperday',
      'dailyhours',
      'hoursused',
      'hoursofuse',
      'runtime',
      'h',
    ],
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

/** What a heading may be read as: whole, and without what stands in brackets: "Rated power (kW, each)". */
const readings = (heading: string): readonly string[] => [
  plain(heading),
  plain(heading.replace(/\([^)]*\)|\[[^\]]*\]/g, '')),
];

/** Fields of words: what stands in brackets behind their heading is no unit that could be left out. "Load (W)" names no thing. */
const OF_WORDS: ReadonlySet<LoadField> = new Set(['circuit', 'lines', 'partition', 'item']);

function means(heading: string, field: LoadField, known: string): boolean {
  if (isEnergy(heading) || (field === 'runningW' && isApparent(heading))) return false;
  return OF_WORDS.has(field) ? plain(heading) === known : readings(heading).includes(known);
}

/** Which column means what, by its heading; a heading that says nothing to us, or speaks of energy, is left open. */
export function guessMapping(headings: readonly string[]): Partial<Record<LoadField, number>> {
  const mapping: Partial<Record<LoadField, number>> = {};
  for (const { field, known } of LOAD_FIELDS) {
    // The heading that comes first in the list of a field is the surest: "item" before "load".
    const at = known
      .map((one) => headings.findIndex((heading) => means(heading, field, one)))
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

/** What a sheet may say, and an export says otherwise: watts, lines by their names. */
export type SheetOnly = 'runningVa' | 'runningA' | 'poles' | 'voltageV' | 'deviceA';
const SHEET_ONLY: ReadonlySet<LoadField> = new Set<SheetOnly>([
  'runningVa',
  'runningA',
  'poles',
  'voltageV',
  'deviceA',
]);
export const isExported = (field: LoadField): field is Exclude<LoadField, SheetOnly> =>
  !SHEET_ONLY.has(field);

/** What a cell of an export says. */
export function showField(
  field: Exclude<LoadField, SheetOnly>,
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
