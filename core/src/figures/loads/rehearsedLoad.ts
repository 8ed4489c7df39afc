import { exp } from '../../values/elementary.ts';
import type { Circuit } from '../../installation/facts.ts';
import { dayStretches } from '../bank/outageHours.ts';
import { magnitude } from '../../network/complex.ts';
import type { Supply } from '../../installation/supply.ts';
import { remember } from '../../values/remember.ts';
import type { Board, PartialSum } from './board.ts';
import { boardDay } from './lineDay.ts';

/** How much the load of a day lies off its average, as a standard deviation. */
export const DAY_SPREAD = 0.15;
/** However quiet a day, so much of its average is drawn. */
export const LEAST_DAY = 0.3;
/** The load of a quarter hour lies this far either way of its day at most: the sum of two even chances. */
export const QUARTER_SPREAD = 0.3;
/** Of all minutes of the rehearsals so many ask for no more than the rehearsed load. */
const REHEARSED_SHARE = 0.99;

/** Steps in which the chance of a quarter hour is summed. */
const STEPS = 200;
const HALVINGS = 60;

/**
 * The normal distribution function (Abramowitz and Stegun 7.1.26: off by less than 1.5e-7).
 *
 * @param z deviations from the mean.
 */
function normalBelow(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const series =
    ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t;
  const half = 0.5 * series * exp(-x * x);
  return z < 0 ? half : 1 - half;
}

function chanceAt(times: number): number {
  let sum = 0;
  for (let step = 0; step < STEPS; step += 1) {
    const u = (2 * (step + 0.5)) / STEPS - 1;
    const day = times / (1 + QUARTER_SPREAD * u);
    sum += (1 - Math.abs(u)) * (day < LEAST_DAY ? 0 : normalBelow((day - 1) / DAY_SPREAD));
  }
  return (2 * sum) / STEPS;
}

/** No minute is so many times its average: seven deviations of the day, and the most of a quarter hour. */
const MOST_TIMES = (1 + QUARTER_SPREAD) * (1 + 7 * DAY_SPREAD);
const PLACES = 1200;
let places: Float64Array | undefined;

/**
 * The chance that a minute asks for no more than so many times its average: days lie about it normally, quarter hours about their day as the
 * sum of two even chances, P = ∫ f(q) · Φ((x/q − 1) / σ) dq. Between places that are worked out once it is straight (off by less than 1e-5).
 */
export function chanceBelow(times: number): number {
  places ??= Float64Array.from({ length: PLACES + 1 }, (_, at) => chanceAt((MOST_TIMES * at) / PLACES));
  const place = (times / MOST_TIMES) * PLACES;
  if (place >= PLACES) return 1;
  const low = Math.floor(place);
  const below = places[low] ?? 0;
  return below + ((places[low + 1] ?? 1) - below) * (place - low);
}

/** A load that holds for a part of the time. */
export interface Level {
  readonly hours: number;
  /** Average while it holds, in whatever unit. */
  readonly average: number;
}

/** What is not passed in a share of the time by a load with these averages and the chance about them. */
export function rehearsedOf(levels: readonly Level[], share: number): number {
  const wholeH = levels.reduce((sum, { hours }) => sum + hours, 0);
  const most = Math.max(0, ...levels.map(({ average }) => average));
  if (wholeH === 0 || most === 0) return 0;
  let low = 0;
  let high = most * MOST_TIMES;
  for (let at = 0; at < HALVINGS; at += 1) {
    const middle = (low + high) / 2;
    const below = levels.reduce(
      (sum, { hours, average }) => sum + hours * (average > 0 ? chanceBelow(middle / average) : 1),
      0,
    );
    if (below < share * wholeH) low = middle;
    else high = middle;
  }
  return high;
}

/** The rehearsed load of a board: on each line what 99 of 100 minutes of all rehearsals stay within. */
export interface RehearsedLoad {
  readonly lineVa: readonly number[];
  /** The hour of the day at which each line is asked for most on average; 0 where every hour is alike. */
  readonly worstFromH: readonly number[];
}

const loadOf = remember((board: Board) =>
  remember((supply: Supply): PartialSum<RehearsedLoad> => {
    const day = boardDay(board.circuits, supply);
    const levelsOf = (line: number): Level[] =>
      day.map(({ fromH, toH, lines }) => ({
        hours: toH - fromH,
        average: lines[line] === undefined ? 0 : magnitude(lines[line]),
      }));
    const worstOf = (levels: readonly Level[]): number => {
      const most = Math.max(...levels.map(({ average }) => average));
      return day[levels.findIndex(({ average }) => average === most)]?.fromH ?? 0;
    };
    const lines = supply.lines.map((_, line) => levelsOf(line));
    return {
      knownPart: {
        lineVa: lines.map((levels) => rehearsedOf(levels, REHEARSED_SHARE)),
        worstFromH: lines.map(worstOf),
      },
      missing: [...board.connected.missing, ...board.averageW.missing],
    };
  }),
);

/** The load case of the rehearsals: worked out once for a board. */
export const rehearsedLoad = (board: Board, supply: Supply): PartialSum<RehearsedLoad> =>
  loadOf(board)(supply);

/** The day of circuits as levels of power, W; what is not known of them is left out, and told by the estimate beside it. */
export const dayLevels = (circuits: readonly Circuit[]): Level[] =>
  dayStretches([{ circuits, shedBelowSoc: undefined }]).map(({ fromH, toH, watts }) => ({
    hours: toH - fromH,
    average: watts[0] ?? 0,
  }));

/** The load-duration curve with chance, W for each of 0 to 100 % of the time, the highest first. */
export const rehearsedDurationW = (levels: readonly Level[]): readonly number[] =>
  Array.from({ length: 101 }, (_, percent) => rehearsedOf(levels, Math.min(0.9999, 1 - percent / 100)));
