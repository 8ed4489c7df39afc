import {
  type BadRow,
  type DateOrder,
  type EnergyUnit,
  guessDateOrder,
  type IntervalResult,
  type MeterFigures,
  readEspi,
  readIntervalRows,
  summariseIntervals,
} from '@bastion/core';
import { expose } from 'comlink';
import Papa from 'papaparse';
import { zoneOffset } from './zoneOffset.ts';

/** What a person may have to say about a meter file before it can be read. */
export interface IntervalChoices {
  readonly hasHeading: boolean;
  readonly time: number;
  readonly value: number;
  readonly unit: EnergyUnit;
  readonly dateOrder: DateOrder | undefined;
  readonly stamp: 'start' | 'end';
  readonly timeZone: string;
  readonly southern: boolean;
}

/** First look at a file: what it seems to be. */
export type Opened =
  | { readonly kind: 'espi' }
  | {
      readonly kind: 'rows';
      readonly heading: readonly string[];
      readonly sample: readonly (readonly string[])[];
      readonly rows: number;
      readonly guess: Omit<IntervalChoices, 'timeZone' | 'southern'>;
    };

export type Summarised =
  | {
      readonly ok: true;
      readonly figures: MeterFigures;
      readonly bad: readonly BadRow[];
      readonly badCount: number;
      readonly repeated: number;
    }
  | { readonly ok: false; readonly message: string };

/** As many bad rows as anybody reads. */
const BAD_SHOWN = 50;
const SAMPLE_ROWS = 5;

let text = '';
let rows: string[][] = [];

const has = (heading: string, ...words: string[]): boolean =>
  words.some((word) => heading.toLowerCase().includes(word));

function guess(
  first: readonly string[],
  second: readonly string[],
): Omit<IntervalChoices, 'timeZone' | 'southern'> {
  const hasHeading = first.every((cell) => !/^\s*[-+]?[\d.,]+\s*$/.test(cell));
  const time = Math.max(
    0,
    first.findIndex((cell) => has(cell, 'time', 'date', 'start', 'from')),
  );
  const named = first.findIndex(
    (cell, at) => at !== time && has(cell, 'kwh', 'wh', 'kw', 'energy', 'power', 'usage'),
  );
  const numeric = second.findIndex((cell, at) => at !== time && /^\s*[\d.,]+\s*$/.test(cell));
  const value = named >= 0 ? named : Math.max(numeric, time === 0 ? 1 : 0);
  const unitText = first[value] ?? '';
  const unit: EnergyUnit = has(unitText, 'kwh')
    ? 'kWh'
    : has(unitText, 'kw')
      ? 'kW'
      : has(unitText, 'wh')
        ? 'Wh'
        : /\bw\b|\(w\)/i.test(unitText)
          ? 'W'
          : 'kWh';
  const samples = rows.slice(1, 2000).map((row) => row[time] ?? '');
  const stamp = has(first[time] ?? '', 'end', 'until') ? 'end' : 'start';
  return { hasHeading, time, value, unit, dateOrder: guessDateOrder(samples), stamp };
}

const work = {
  /** Reads the file and keeps its rows here, so that they never cross to the page. */
  open: (content: string): Opened => {
    text = content;
    if (/^\s*</.test(content.replace(/^\uFEFF/, ''))) return { kind: 'espi' };
    rows = Papa.parse<string[]>(content.replace(/^\uFEFF/, ''), { skipEmptyLines: true }).data;
    const [first = [], second = []] = rows;
    return {
      kind: 'rows',
      heading: first,
      sample: rows.slice(0, SAMPLE_ROWS),
      rows: rows.length,
      guess: guess(first, second),
    };
  },

  summarise: (choices: IntervalChoices, isEspi: boolean): Summarised => {
    const zone = zoneOffset(choices.timeZone);
    let read: IntervalResult;
    if (isEspi) read = readEspi(text);
    else if (choices.dateOrder === undefined)
      return { ok: false, message: 'Say whether the day or the month comes first in these dates.' };
    else
      read = readIntervalRows(
        choices.hasHeading ? rows.slice(1) : rows,
        { ...choices, dateOrder: choices.dateOrder },
        zone,
        choices.hasHeading ? 2 : 1,
      );
    if (!read.ok) return read;
    return {
      ok: true,
      figures: summariseIntervals(read.value, zone, choices.southern),
      bad: read.value.bad.slice(0, BAD_SHOWN),
      badCount: read.value.bad.length,
      repeated: read.value.repeated,
    };
  },
};
export type IntervalWork = typeof work;

expose(work);
