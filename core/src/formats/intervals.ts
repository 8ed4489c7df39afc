import { decimalSignOf, readFigure } from '../words/figure.ts';
import { DURATION_POINTS, type MeterSummary, seasonOf, SEASONS } from '../design/meters.ts';
import { cachedZone, DAY_MS, instantsOf, localMs, type ZoneOffsetMin } from './zone.ts';
import { type DateOrder, readTimestamp } from './timestamps.ts';

/** One interval: when it began and its average power. */
export interface IntervalReading {
  readonly startMs: number;
  readonly watts: number;
}

export interface BadRow {
  /** Counted from 1, as a spreadsheet shows it. */
  readonly row: number;
  readonly reason: string;
}

export type EnergyUnit = 'kWh' | 'Wh' | 'kW' | 'W';

export interface IntervalColumns {
  readonly time: number;
  readonly value: number;
  readonly unit: EnergyUnit;
  readonly dateOrder: DateOrder;
  /** Whether the time written is that of the start or of the end of its interval. */
  readonly stamp: 'start' | 'end';
}

export interface ReadIntervals {
  readonly readings: readonly IntervalReading[];
  readonly intervalMin: 15 | 30 | 60;
  readonly bad: readonly BadRow[];
  /** Local times of the hour that autumn repeats; the order of the rows tells them apart. */
  readonly repeated: number;
}

export type IntervalResult =
  { readonly ok: true; readonly value: ReadIntervals } | { readonly ok: false; readonly message: string };

export type MeterFigures = Omit<MeterSummary, 'id' | 'name' | 'scope' | 'source'>;

const INTERVALS = [15, 30, 60] as const;
const MINUTE_MS = 60_000;

/** The most common distance between neighbours, if it is one that meters use. */
function intervalOf(starts: readonly number[]): 15 | 30 | 60 | undefined {
  const counts = new Map<number, number>();
  for (let index = 1; index < starts.length; index += 1) {
    const minutes = ((starts[index] ?? 0) - (starts[index - 1] ?? 0)) / MINUTE_MS;
    counts.set(minutes, (counts.get(minutes) ?? 0) + 1);
  }
  const most = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
  return INTERVALS.find((minutes) => minutes === most);
}

/** Average power of an interval from what the file gives for it. */
export function wattsOf(value: number, unit: EnergyUnit, intervalMin: number): number {
  switch (unit) {
    case 'kWh':
      return (value * 1000 * 60) / intervalMin;
    case 'Wh':
      return (value * 60) / intervalMin;
    case 'kW':
      return value * 1000;
    case 'W':
      return value;
  }
}

interface Dated {
  readonly row: number;
  readonly ms: number;
  readonly value: number;
}

/** Puts the rows on the time line; rows that cannot be are kept aside with their reason. */
function dateRows(
  rows: readonly (readonly string[])[],
  columns: IntervalColumns,
  zone: ZoneOffsetMin,
  firstRow: number,
): { dated: Dated[]; bad: BadRow[]; repeated: number } {
  const dated: Dated[] = [];
  const bad: BadRow[] = [];
  let repeated = 0;
  let last = -Infinity;
  const decimal = decimalSignOf(rows.map((cells) => cells[columns.value] ?? ''));
  rows.forEach((cells, index) => {
    const row = firstRow + index;
    const timeText = cells[columns.time] ?? '';
    const valueText = cells[columns.value] ?? '';
    if (timeText.trim() === '' && valueText.trim() === '') return;
    const written = readTimestamp(timeText, columns.dateOrder);
    const value = readFigure(valueText, decimal);
    if (written === undefined) bad.push({ row, reason: `"${timeText.slice(0, 30)}" is not a date and time` });
    else if (value === undefined) bad.push({ row, reason: `"${valueText.slice(0, 30)}" is not a number` });
    else if (value < 0)
      bad.push({ row, reason: `${value} is negative: energy that was fed in is not a load` });
    else {
      const options = written.kind === 'instant' ? [written.utcMs] : instantsOf(written.localMs, zone);
      if (options.length > 1) repeated += 1;
      const ms = options.find((one) => one > last) ?? options.at(-1);
      if (ms === undefined)
        bad.push({ row, reason: `${timeText.trim()} does not exist: the clock is put forward in that hour` });
      else {
        dated.push({ row, ms, value });
        last = ms;
      }
    }
  });
  return { dated, bad, repeated };
}

/** Reads meter rows (one reading each, without the heading). Good rows are kept, each bad one is named with its reason. */
export function readIntervalRows(
  rows: readonly (readonly string[])[],
  columns: IntervalColumns,
  zone: ZoneOffsetMin,
  firstRow = 1,
): IntervalResult {
  const { dated, bad, repeated } = dateRows(rows, columns, cachedZone(zone), firstRow);
  dated.sort((a, b) => a.ms - b.ms || a.row - b.row);
  const unique: Dated[] = [];
  for (const one of dated) {
    if (unique.at(-1)?.ms === one.ms)
      bad.push({ row: one.row, reason: 'is a second reading for the same time' });
    else unique.push(one);
  }
  const intervalMin = intervalOf(unique.map((one) => one.ms));
  if (unique.length < 2)
    return {
      ok: false,
      message:
        bad[0] === undefined
          ? 'There are no readings in this file.'
          : `No reading could be used. Row ${bad[0].row}: ${bad[0].reason}.`,
    };
  if (intervalMin === undefined)
    return {
      ok: false,
      message: 'The readings are not 15, 30 or 60 minutes apart, so they are no interval readings.',
    };
  const shiftMs = columns.stamp === 'end' ? intervalMin * MINUTE_MS : 0;
  const readings = unique.map(({ ms, value }) => ({
    startMs: ms - shiftMs,
    watts: wattsOf(value, columns.unit, intervalMin),
  }));
  bad.sort((a, b) => a.row - b.row);
  return { ok: true, value: { readings, intervalMin, bad, repeated } };
}

function dayOfSeasons(
  readings: readonly IntervalReading[],
  zone: ZoneOffsetMin,
  southern: boolean,
): MeterFigures['seasons'] {
  const sums = new Map(SEASONS.map((season) => [season, { w: new Float64Array(24), n: new Int32Array(24) }]));
  for (const { startMs, watts } of readings) {
    const local = localMs(startMs, zone);
    const sum = sums.get(seasonOf(new Date(local).getUTCMonth(), southern));
    const hour = Math.floor((((local % DAY_MS) + DAY_MS) % DAY_MS) / 3_600_000);
    if (sum === undefined) continue;
    sum.w[hour] = (sum.w[hour] ?? 0) + watts;
    sum.n[hour] = (sum.n[hour] ?? 0) + 1;
  }
  return [...sums].flatMap(([season, { w, n }]) =>
    n.every((count) => count === 0)
      ? []
      : [
          {
            season,
            hourW: Array.from(w, (sum, hour) => ((n[hour] ?? 0) === 0 ? null : sum / (n[hour] ?? 1))),
          },
        ],
  );
}

/** The load-duration curve: the power that is reached or exceeded for 0, 1, … 100 % of the readings. */
export function durationCurve(watts: readonly number[]): number[] {
  const sorted = Float64Array.from(watts).sort();
  return Array.from({ length: DURATION_POINTS }, (_, percent) => {
    const place = Math.round((1 - percent / (DURATION_POINTS - 1)) * (sorted.length - 1));
    return sorted[place] ?? 0;
  });
}

/** Sums a run of readings (in order of time) up to what a design keeps of it. */
export function summariseIntervals(
  { readings, intervalMin }: Pick<ReadIntervals, 'readings' | 'intervalMin'>,
  zone: ZoneOffsetMin,
  southern = false,
): MeterFigures {
  const cached = cachedZone(zone);
  const [first] = readings;
  const last = readings.at(-1);
  let peak = first;
  for (const reading of readings) if (reading.watts > (peak?.watts ?? 0)) peak = reading;
  const iso = (ms: number): string => new Date(ms).toISOString();
  const span = ((last?.startMs ?? 0) - (first?.startMs ?? 0)) / (intervalMin * MINUTE_MS) + 1;
  return {
    intervalMin,
    firstAt: iso(first?.startMs ?? 0),
    lastAt: iso(last?.startMs ?? 0),
    readings: readings.length,
    missing: Math.max(0, Math.round(span) - readings.length),
    peakW: peak?.watts ?? 0,
    peakAt: iso(peak?.startMs ?? 0),
    durationW: durationCurve(readings.map((reading) => reading.watts)),
    seasons: dayOfSeasons(readings, cached, southern),
  };
}
