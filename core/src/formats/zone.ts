/** Minutes that local time is ahead of UTC at an instant. Handed in, since time zones are data of the machine, not of the core. */
export type ZoneOffsetMin = (utcMs: number) => number;

const MINUTE_MS = 60_000;
export const DAY_MS = 86_400_000;

/**
 * Remembers the offset of each UTC day on which it does not change: a year has two days on which it does, and asking a
 * time-zone table for each of 35,040 readings is slow.
 */
export function cachedZone(zone: ZoneOffsetMin): ZoneOffsetMin {
  const days = new Map<number, number | 'changes'>();
  return (utcMs) => {
    const day = Math.floor(utcMs / DAY_MS);
    let found = days.get(day);
    if (found === undefined) {
      const start = zone(day * DAY_MS);
      found = start === zone((day + 1) * DAY_MS) ? start : 'changes';
      days.set(day, found);
    }
    return found === 'changes' ? zone(utcMs) : found;
  };
}

/** The instants that a local time stands for, earlier first: none in the hour that spring skips, two in the one autumn repeats. */
export function instantsOf(localMs: number, zone: ZoneOffsetMin): number[] {
  const offsets = new Set([zone(localMs - DAY_MS), zone(localMs + DAY_MS)]);
  return [...offsets]
    .map((offset) => ({ offset, utcMs: localMs - offset * MINUTE_MS }))
    .filter(({ offset, utcMs }) => zone(utcMs) === offset)
    .map(({ utcMs }) => utcMs)
    .sort((a, b) => a - b);
}

/** Local time as if it were UTC, for reading hours and months off. */
export const localMs = (utcMs: number, zone: ZoneOffsetMin): number => utcMs + zone(utcMs) * MINUTE_MS;
