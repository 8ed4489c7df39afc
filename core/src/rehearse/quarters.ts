import { remember } from '../values/remember.ts';
import type { Plant } from './plant.ts';
import { NO_SUN } from './outageState.ts';
import type { Strain } from './strain.ts';
import { MINUTES_OF_DAY } from './year.ts';

/** Minutes that are looked at together: the chance on the load holds for as long. */
export const QUARTER = 15;

/** The last minute of the day at which a whole quarter of an hour begins. */
export const LAST_QUARTER = MINUTES_OF_DAY - QUARTER;

/** The figures of a quarter of an hour of sun, side by side for each minute at which one may begin. */
export const SUN_STRIDE = 6;
export const DC_SUM = 0;
export const DC_LEAST = 1;
export const DC_MOST = 2;
export const AC_SUM = 3;
export const AC_LEAST = 4;
export const AC_MOST = 5;

/** And those of what is asked of a set. */
export const LOAD_STRIDE = 9;
export const LOAD_SUM = 0;
export const LOAD_LEAST = 1;
export const LOAD_MOST = 2;
/** The largest share of what the inverters carry, and of what they and a running generator do. */
export const STRAIN_MOST = 3;
export const ENGINE_STRAIN_MOST = 4;
/** What lies on lines that a generator reaches, at most; and what does not. */
export const REACHED_MOST = 5;
export const REST_SUM = 6;
export const REST_LEAST = 7;
export const REST_MOST = 8;

interface Column {
  readonly of: (minute: number) => number;
  /** Places of its sum, its least and its most among the figures; below nought where one is not kept. */
  readonly sum: number;
  readonly least: number;
  readonly most: number;
}

/** For each minute of the day the figures of the quarter of an hour that begins there. */
function tableOf(stride: number, columns: readonly Column[]): Float64Array {
  const table = new Float64Array((LAST_QUARTER + 1) * stride);
  for (const { of, sum, least, most } of columns)
    for (let from = 0; from <= LAST_QUARTER; from += 1) {
      let total = 0;
      let low = Infinity;
      let high = -Infinity;
      for (let minute = from; minute < from + QUARTER; minute += 1) {
        const value = of(minute);
        total += value;
        if (value < low) low = value;
        if (value > high) high = value;
      }
      if (sum >= 0) table[from * stride + sum] = total;
      if (least >= 0) table[from * stride + least] = low;
      if (most >= 0) table[from * stride + most] = high;
    }
  return table;
}

/** Of what is asked of a set; made once for each combination of boards. */
export const loadQuarters = remember(({ loadW, most, withEngine, engineW }: Strain): Float64Array =>
  tableOf(LOAD_STRIDE, [
    { of: (at) => loadW[at] ?? 0, sum: LOAD_SUM, least: LOAD_LEAST, most: LOAD_MOST },
    { of: (at) => most[at] ?? 0, sum: -1, least: -1, most: STRAIN_MOST },
    { of: (at) => withEngine[at] ?? 0, sum: -1, least: -1, most: ENGINE_STRAIN_MOST },
    { of: (at) => engineW[at] ?? 0, sum: -1, least: -1, most: REACHED_MOST },
    {
      of: (at) => (loadW[at] ?? 0) - (engineW[at] ?? 0),
      sum: REST_SUM,
      least: REST_LEAST,
      most: REST_MOST,
    },
  ]),
);

const sunOf = (dcDay: Float64Array, acDay: Float64Array): Float64Array =>
  tableOf(SUN_STRIDE, [
    { of: (at) => dcDay[at] ?? 0, sum: DC_SUM, least: DC_LEAST, most: DC_MOST },
    { of: (at) => acDay[at] ?? 0, sum: AC_SUM, least: AC_LEAST, most: AC_MOST },
  ]);

const seasonsOf = remember((_plant: Plant): (Float64Array | undefined)[] => []);

/** Of the sun of a season; made once for each that is met. */
export function sunQuarters(plant: Plant, season: number): Float64Array {
  const seasons = seasonsOf(plant);
  const table = seasons[season] ?? sunOf(plant.sunDcW[season] ?? NO_SUN, plant.sunAcW[season] ?? NO_SUN);
  seasons[season] = table;
  return table;
}
