import { LONGEST_MINUTES } from './patterns.ts';

/** State of charge is counted in steps of one percent. */
const STEPS = 101;
const HOURS = Math.floor(LONGEST_MINUTES / 60) + 1;
/** Of fewer outages than this, or a smaller share of all, there is no spread to speak of. */
const LEAST_NIGHTS = 20;
const LEAST_SHARE = 0.01;

/** What one outage leaves behind hour by hour, from the first on. */
export interface HourTrace {
  readonly soc: Float64Array;
  /** 1 where the set was dark. */
  readonly dark: Uint8Array;
}

export const hourTrace = (): HourTrace => ({ soc: new Float64Array(HOURS), dark: new Uint8Array(HOURS) });

/** Counts over many outages: whole numbers, so that any order of adding gives the same. */
export interface BandCounts {
  /** soc[hour · 101 + percent] */
  readonly soc: Uint32Array;
  readonly dark: Uint32Array;
}

export const bandCounts = (): BandCounts => ({
  soc: new Uint32Array(HOURS * STEPS),
  dark: new Uint32Array(HOURS),
});

/** Counts the hours of an outage that lasted so many minutes. */
export function countHours(counts: BandCounts, { soc, dark }: HourTrace, minutes: number): void {
  const hours = Math.min(HOURS, Math.ceil(minutes / 60));
  for (let hour = 0; hour < hours; hour += 1) {
    const percent = Math.min(STEPS - 1, Math.max(0, Math.round((soc[hour] ?? 0) * 100)));
    const at = hour * STEPS + percent;
    counts.soc[at] = (counts.soc[at] ?? 0) + 1;
    counts.dark[hour] = (counts.dark[hour] ?? 0) + (dark[hour] ?? 0);
  }
}

/** Adds what was counted elsewhere. */
export function addCounts(counts: BandCounts, more: BandCounts): void {
  for (let at = 0; at < counts.soc.length; at += 1)
    counts.soc[at] = (counts.soc[at] ?? 0) + (more.soc[at] ?? 0);
  for (let at = 0; at < counts.dark.length; at += 1)
    counts.dark[at] = (counts.dark[at] ?? 0) + (more.dark[at] ?? 0);
}

/** The spread at one hour after the grid has gone, over the outages that last so long. */
export interface Band {
  readonly hour: number;
  readonly nights: number;
  /** Share of them that are dark then. */
  readonly dark: number;
  /** State of charge in the worst 5 of 100, the worst 25, the middle, and what 25 and 5 of 100 are better than. */
  readonly soc: readonly [number, number, number, number, number];
}

const SHARES = [0.05, 0.25, 0.5, 0.75, 0.95] as const;

/** The percentile bands over time, until too few outages last on. */
export function bandsOf({ soc, dark }: BandCounts): readonly Band[] {
  const bands: Band[] = [];
  let least = LEAST_NIGHTS;
  for (let hour = 0; hour < HOURS; hour += 1) {
    const counts = soc.subarray(hour * STEPS, (hour + 1) * STEPS);
    const nights = counts.reduce((sum, one) => sum + one, 0);
    if (hour === 0) least = Math.max(least, nights * LEAST_SHARE);
    if (nights < least) break;
    const at = (share: number): number => {
      let left = Math.ceil(share * nights);
      return counts.findIndex((one) => (left -= one) <= 0) / (STEPS - 1);
    };
    const [worst, low, middle, high, best] = SHARES;
    bands.push({
      hour,
      nights,
      dark: (dark[hour] ?? 0) / nights,
      soc: [at(worst), at(low), at(middle), at(high), at(best)],
    });
  }
  return bands;
}
