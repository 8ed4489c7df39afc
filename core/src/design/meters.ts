import { z } from 'zod';
import { id, name, nonNegative } from '../values/quantities.ts';

export const SEASONS = ['winter', 'spring', 'summer', 'autumn'] as const;
export type Season = (typeof SEASONS)[number];

/** Seasons as months have them north of the equator. */
const SEASON_OF_MONTH: readonly Season[] = [
  'winter',
  'winter',
  'spring',
  'spring',
  'spring',
  'summer',
  'summer',
  'summer',
  'autumn',
  'autumn',
  'autumn',
  'winter',
];
const OPPOSITE: Record<Season, Season> = {
  winter: 'summer',
  spring: 'autumn',
  summer: 'winter',
  autumn: 'spring',
};

/** The season of a month, counted from 0. */
export function seasonOf(month: number, southern: boolean): Season {
  const north = SEASON_OF_MONTH[month] ?? 'winter';
  return southern ? OPPOSITE[north] : north;
}

/** How many steps the load-duration curve of a summary has: one per hundredth of the time, both ends included. */
export const DURATION_POINTS = 101;

/** A year of readings as a design keeps it: the peak, the load-duration curve and a day of each season. */
export const meterSummary = z.strictObject({
  id,
  name,
  scope: z.union([z.literal('building'), id]).describe('The whole building, or the partition it measures.'),
  source: name.describe('Name of the file it was read from.'),
  intervalMin: z.union([z.literal(15), z.literal(30), z.literal(60)]),
  firstAt: z.iso.datetime({ offset: true }),
  lastAt: z.iso.datetime({ offset: true }),
  readings: z.number().int().min(1).max(1_000_000),
  missing: z.number().int().min(0).describe('Intervals between first and last that the file does not have.'),
  peakW: nonNegative.describe('Highest average of one interval.'),
  peakAt: z.iso.datetime({ offset: true }),
  durationW: z
    .array(nonNegative)
    .length(DURATION_POINTS)
    .describe('Power exceeded for 0, 1, … 100 % of the time.'),
  seasons: z
    .array(
      z.strictObject({
        season: z.enum(SEASONS),
        hourW: z
          .array(nonNegative.nullable())
          .length(24)
          .describe('Mean power of each hour; null: no reading.'),
      }),
    )
    .max(4),
});
export type MeterSummary = z.infer<typeof meterSummary>;
