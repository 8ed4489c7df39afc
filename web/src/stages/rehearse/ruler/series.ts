import type { TimeView } from './timeScale.ts';

/** A figure over time: each value holds from its time to the next. */
export interface Series {
  readonly label: string;
  readonly ink: string;
  readonly dash?: string;
  readonly atS: Float64Array;
  readonly values: Float64Array;
}

/** Places of a picture on which a series is drawn. */
const BUCKETS = 500;

/** The last place whose time is not after a moment; −1 before the first. */
export function placeAt(atS: Float64Array, seconds: number): number {
  let low = 0;
  let high = atS.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if ((atS[middle] ?? Infinity) <= seconds) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** The value at a moment; undefined before the first. */
export function valueAt({ atS, values }: Series, seconds: number): number | undefined {
  const place = placeAt(atS, seconds);
  const value = place < 0 ? undefined : values[place];
  return value === undefined || Number.isNaN(value) ? undefined : value;
}

/**
 * NaN is a stretch of which nothing is told: the line breaks there.
 *
 * A series as the path of a picture, 1000 wide and 100 high: of many points in one place lowest and highest are drawn, so that nothing that
 * is short is lost.
 */
export function pathOf({ atS, values }: Series, { fromS, toS }: TimeView, most: number, least = 0): string {
  if (atS.length === 0) return '';
  const y = (value: number): string =>
    (100 - ((Math.min(Math.max(value, least), most) - least) / (most - least)) * 100).toFixed(1);
  const parts: string[] = [];
  let place = placeAt(atS, fromS);
  const told = (value: number | undefined): number | undefined =>
    value === undefined || Number.isNaN(value) ? undefined : value;
  let before = place < 0 ? undefined : told(values[place]);
  let isBroken = true;
  for (let bucket = 0; bucket < BUCKETS; bucket += 1) {
    const endS = fromS + ((toS - fromS) * (bucket + 1)) / BUCKETS;
    let low = before ?? Infinity;
    let high = before ?? -Infinity;
    while (place + 1 < atS.length && (atS[place + 1] ?? Infinity) < endS) {
      place += 1;
      before = told(values[place]);
      if (before === undefined) continue;
      low = Math.min(low, before);
      high = Math.max(high, before);
    }
    if (before === undefined) {
      isBroken = true;
      continue;
    }
    const x = ((bucket + 0.5) * 1000) / BUCKETS;
    parts.push(`${isBroken ? 'M' : 'L'}${x} ${y(high)}`);
    isBroken = false;
    if (low < high) parts.push(`L${x} ${y(low)}`);
    parts.push(`L${x} ${y(before)}`);
  }
  return parts.join('');
}

/** A stretch in which something is there. */
export interface Span {
  readonly fromS: number;
  readonly toS: number;
}

/** Stretches of minutes in which something holds. */
export function spansOf(minutes: number, holds: (minute: number) => boolean): Span[] {
  const spans: { fromS: number; toS: number }[] = [];
  for (let minute = 0; minute < minutes; minute += 1) {
    if (!holds(minute)) continue;
    const last = spans.at(-1);
    if (last?.toS === minute * 60) last.toS += 60;
    else spans.push({ fromS: minute * 60, toS: (minute + 1) * 60 });
  }
  return spans;
}
