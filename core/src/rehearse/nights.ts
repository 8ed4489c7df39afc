import { DAY_SPREAD, LEAST_DAY } from '../figures/loads/rehearsedLoad.ts';
import {
  addCounts,
  type Band,
  type BandCounts,
  bandCounts,
  bandsOf,
  countHours,
  hourTrace,
} from './bands.ts';
import { chanceOf, next, normal } from './chance.ts';
import { type OutageResult, runOutage } from './outage.ts';
import type { OutageRun } from './outageRun.ts';
import type { OutagePattern } from './patterns.ts';
import type { Plant } from './plant.ts';
import { MINUTES_OF_DAY, SEASONS } from './year.ts';

/** What many nights are played with. */
export interface NightsRun {
  readonly seed: number;
  readonly nights: number;
  readonly pattern: OutagePattern;
  readonly startSoc: number;
  readonly targetMinutes: number | undefined;
  readonly generatorFromSoc: number;
  readonly generatorToSoc: number;
  readonly handMinutes: number;
}

/** What one night came to, in columns: nothing else of it is kept, and it can be played again from its number. */
export interface NightColumns {
  readonly minutes: Float64Array;
  readonly lasted: Float64Array;
  readonly unservedWh: Float64Array;
  readonly generatorMinutes: Float64Array;
  readonly generatorStarts: Float64Array;
  readonly litres: Float64Array;
  readonly lowestSoc: Float64Array;
  readonly overloadMinutes: Float64Array;
  /** boardMinutes[board][night] */
  readonly boardMinutes: readonly Float64Array[];
  /** The hours of all of them together. */
  readonly hours: BandCounts;
}

/** Clear, broken and overcast days, as shares of a clear sky, and how likely each is. */
const SKIES = [
  { from: 0.75, to: 1, likely: 0.4 },
  { from: 0.35, to: 0.75, likely: 0.35 },
  { from: 0.05, to: 0.35, likely: 0.25 },
] as const;
const MOST_DAYS = 15;

/** One night by its number: when it begins, how long it lasts, what the sky and the load are like. */
export function nightRun(run: NightsRun, night: number): OutageRun {
  const chance = chanceOf(run.seed, night);
  const season = Math.floor(next(chance) * SEASONS);
  const startMinute = Math.floor(next(chance) * MINUTES_OF_DAY);
  const minutes = run.pattern.draw(chance);
  const clearness = Array.from(
    { length: Math.min(MOST_DAYS, Math.ceil(minutes / MINUTES_OF_DAY) + 1) },
    () => {
      let left = next(chance);
      const sky = SKIES.find(({ likely }) => (left -= likely) < 0) ?? SKIES[0];
      return sky.from + (sky.to - sky.from) * next(chance);
    },
  );
  return {
    season,
    startMinute,
    minutes,
    startSoc: run.startSoc,
    clearness,
    loadFactor: Math.max(LEAST_DAY, 1 + DAY_SPREAD * normal(chance)),
    chance,
    generatorFromSoc: run.generatorFromSoc,
    generatorToSoc: run.generatorToSoc,
    handMinutes: run.handMinutes,
    lose: undefined,
  };
}

/** Columns for so many nights. */
export function nightColumns(plant: Plant, nights: number): NightColumns {
  const column = (): Float64Array => new Float64Array(nights);
  return {
    minutes: column(),
    lasted: column(),
    unservedWh: column(),
    generatorMinutes: column(),
    generatorStarts: column(),
    litres: column(),
    lowestSoc: column(),
    overloadMinutes: column(),
    boardMinutes: plant.boards.map(column),
    hours: bandCounts(),
  };
}

function keep(columns: NightColumns, night: number, minutes: number, result: OutageResult): void {
  columns.minutes[night] = minutes;
  columns.lasted[night] = result.lastedMinutes;
  columns.unservedWh[night] = result.energy.unserved;
  columns.generatorMinutes[night] = result.generatorMinutes;
  columns.generatorStarts[night] = result.generatorStarts;
  columns.litres[night] = result.litres;
  columns.lowestSoc[night] = result.lowestSoc;
  columns.overloadMinutes[night] = result.overloadMinutes;
  columns.boardMinutes.forEach((column, board) => {
    column[night] = result.boardMinutes[board] ?? 0;
  });
}

/**
 * Short outages that go every way there is once: an empty bank, a full one, a call for the engine, too much load, a module lost. A machine
 * that compiles as it goes has then seen all of it, and need not begin anew in the middle of ten thousand nights. Nothing of them is
 * kept; they take some microseconds.
 */
function acquaint(plant: Plant, run: NightsRun, from: number): void {
  const trace = hourTrace();
  const ways: readonly Partial<OutageRun>[] = [
    { startSoc: plant.floorSoc },
    { startSoc: 1 },
    { startSoc: run.generatorFromSoc, startMinute: MINUTES_OF_DAY / 2 },
    { loadFactor: 100 },
    { startSoc: plant.floorSoc + 0.001 },
    { startSoc: run.generatorToSoc - 0.001 },
  ];
  for (const way of ways)
    for (const lose of [undefined, { what: 'module' as const, minute: 5 }])
      runOutage(plant, { ...nightRun(run, from), minutes: 121, lose, ...way }, undefined, trace);
}

/** Plays some of the nights into their columns, or from an offset on into columns of their own. Any split over threads gives the same: each night has a stream of its own. */
export function playNights(
  plant: Plant,
  run: NightsRun,
  columns: NightColumns,
  from: number,
  to: number,
  offset = 0,
): void {
  acquaint(plant, run, from);
  const trace = hourTrace();
  for (let night = from; night < to; night += 1) {
    const one = nightRun(run, night);
    keep(columns, night - offset, one.minutes, runOutage(plant, one, undefined, trace));
    countHours(columns.hours, trace, one.minutes);
  }
}

/** The columns of the first nights, for a picture while the others are still being played; the hours are of all that were. */
export const firstNights = (columns: NightColumns, nights: number): NightColumns => ({
  minutes: columns.minutes.subarray(0, nights),
  lasted: columns.lasted.subarray(0, nights),
  unservedWh: columns.unservedWh.subarray(0, nights),
  generatorMinutes: columns.generatorMinutes.subarray(0, nights),
  generatorStarts: columns.generatorStarts.subarray(0, nights),
  litres: columns.litres.subarray(0, nights),
  lowestSoc: columns.lowestSoc.subarray(0, nights),
  overloadMinutes: columns.overloadMinutes.subarray(0, nights),
  boardMinutes: columns.boardMinutes.map((column) => column.subarray(0, nights)),
  hours: columns.hours,
});

const COLUMN_KEYS = [
  'minutes',
  'lasted',
  'unservedWh',
  'generatorMinutes',
  'generatorStarts',
  'litres',
  'lowestSoc',
  'overloadMinutes',
] as const;

/** Nights that were played elsewhere, into their place among all. */
export function placeNights(columns: NightColumns, part: NightColumns, from: number): void {
  for (const key of COLUMN_KEYS) columns[key].set(part[key], from);
  columns.boardMinutes.forEach((column, board) =>
    column.set(part.boardMinutes[board] ?? new Float64Array(0), from),
  );
  addCounts(columns.hours, part.hours);
}

/** What share of a sorted column lies below a value. */
const valueAt = (sorted: Float64Array, share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.max(0, Math.ceil(share * sorted.length) - 1))] ?? 0;

export interface BoardSpread {
  readonly name: string;
  /** Share of each outage in which it was served, in the worst 1, 5 and 50 of 100. */
  readonly worst1: number;
  readonly worst5: number;
  readonly middle: number;
}

/** Hours in which a board was served, of those that the outage lasted. */
export interface ServedHours {
  readonly servedH: number;
  readonly ofH: number;
}

/** What the outages came to that stand at the ranks of the spread of a board. */
export interface BoardHours {
  readonly name: string;
  readonly worst1: ServedHours;
  readonly worst5: ServedHours;
  readonly middle: ServedHours;
}

/** The spread of many nights. */
export interface NightsSummary {
  readonly nights: number;
  /** Share of outages that were carried to their end without going dark. */
  readonly carried: number;
  /** Share that were carried to the target of the site, or to their end where that came sooner. */
  readonly toTarget: number | undefined;
  readonly lastedH: { readonly worst1: number; readonly worst5: number; readonly middle: number };
  readonly boards: readonly BoardSpread[];
  readonly boardHours: readonly BoardHours[];
  readonly unservedKwh: number;
  readonly generatorH: number;
  readonly generatorStarts: number;
  readonly litres: number;
  /** Share of outages in which a limit of power was met. */
  readonly overloaded: number;
  /** The nights that were dark for longest, the longest first. */
  readonly worst: readonly NightGlance[];
  /** State of charge over the hours since the grid went. */
  readonly bands: readonly Band[];
}

/** One night of many, at a glance; it can be played again from its number. */
export interface NightGlance {
  readonly night: number;
  /** Season of the year, and minute of the day at which the grid goes. */
  readonly season: number;
  readonly startMinute: number;
  readonly minutes: number;
  readonly lastedMinutes: number;
  readonly unservedWh: number;
}

/** The outages at the ranks of a board: sorted by the share that was served, and of equals by the hours. */
function hoursOf(name: string, served: Float64Array, minutes: Float64Array): BoardHours {
  const shareOf = (night: number): number => (served[night] ?? 0) / (minutes[night] ?? 1);
  const nights = Float64Array.from(served, (_, night) => night).sort(
    (a, b) => shareOf(a) - shareOf(b) || (served[a] ?? 0) - (served[b] ?? 0),
  );
  const at = (share: number): ServedHours => {
    const night = valueAt(nights, share);
    return { servedH: (served[night] ?? 0) / 60, ofH: (minutes[night] ?? 0) / 60 };
  };
  return { name, worst1: at(0.01), worst5: at(0.05), middle: at(0.5) };
}

const mean = (column: Float64Array): number => column.reduce((sum, one) => sum + one, 0) / column.length;

/** So many of the worst nights are told one by one. */
const WORST = 10;

/** The nights that were dark for longest; of equals the earlier ones. */
function worstOf(run: NightsRun, { minutes, lasted, unservedWh }: NightColumns): NightGlance[] {
  const dark = (night: number): number => (minutes[night] ?? 0) - (lasted[night] ?? 0);
  const worst: number[] = [];
  for (let night = 0; night < minutes.length; night += 1) {
    const least = worst.at(-1);
    if (dark(night) <= 0 || (worst.length === WORST && least !== undefined && dark(night) <= dark(least)))
      continue;
    const place = worst.findIndex((one) => dark(one) < dark(night));
    worst.splice(place < 0 ? worst.length : place, 0, night);
    if (worst.length > WORST) worst.pop();
  }
  return worst.map((night) => ({
    night,
    ...glance(nightRun(run, night)),
    lastedMinutes: lasted[night] ?? 0,
    unservedWh: unservedWh[night] ?? 0,
  }));
}

const glance = ({ season, startMinute, minutes }: OutageRun) => ({ season, startMinute, minutes });

/** Sums up columns that have been played. */
export function summarise(plant: Plant, run: NightsRun, columns: NightColumns): NightsSummary {
  const nights = columns.minutes.length;
  const shareOf = (is: (night: number) => boolean): number => {
    let count = 0;
    for (let night = 0; night < nights; night += 1) if (is(night)) count += 1;
    return count / nights;
  };
  const lasted = (night: number): number => columns.lasted[night] ?? 0;
  const minutes = (night: number): number => columns.minutes[night] ?? 0;
  const target = run.targetMinutes;
  const sorted = columns.lasted.toSorted();
  return {
    nights,
    carried: shareOf((night) => lasted(night) >= minutes(night)),
    toTarget:
      target === undefined
        ? undefined
        : shareOf((night) => lasted(night) >= Math.min(target, minutes(night))),
    lastedH: {
      worst1: valueAt(sorted, 0.01) / 60,
      worst5: valueAt(sorted, 0.05) / 60,
      middle: valueAt(sorted, 0.5) / 60,
    },
    boards: plant.boards.map(({ name }, board) => {
      const shares = (columns.boardMinutes[board] ?? new Float64Array(nights)).map(
        (served, night) => served / minutes(night),
      );
      shares.sort();
      return {
        name,
        worst1: valueAt(shares, 0.01),
        worst5: valueAt(shares, 0.05),
        middle: valueAt(shares, 0.5),
      };
    }),
    boardHours: plant.boards.map(({ name }, board) =>
      hoursOf(name, columns.boardMinutes[board] ?? new Float64Array(nights), columns.minutes),
    ),
    unservedKwh: mean(columns.unservedWh) / 1000,
    generatorH: mean(columns.generatorMinutes) / 60,
    generatorStarts: mean(columns.generatorStarts),
    litres: mean(columns.litres),
    overloaded: shareOf((night) => (columns.overloadMinutes[night] ?? 0) > 0),
    worst: worstOf(run, columns),
    bands: bandsOf(columns.hours),
  };
}
