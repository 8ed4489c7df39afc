import type { Circuit, Item } from '../../installation/facts.ts';
import { HOURS_OF_DAY } from './circuitPower.ts';

/** A part of the day in which no item begins or ends. */
export interface Stretch {
  readonly fromH: number;
  readonly toH: number;
}

type Window = readonly (readonly [number, number])[];

/** When an item may run; undefined where nobody said. A window that ends before it begins lies past midnight. */
export function windowOf({ runsFromH, runsToH }: Item): Window | undefined {
  if (runsFromH === undefined || runsToH === undefined) return undefined;
  if (runsFromH < runsToH) return [[runsFromH, runsToH]];
  return [
    [runsFromH, HOURS_OF_DAY],
    [0, runsToH],
  ];
}

/**
 * The share of its running power that an item draws on average while it may run: its hours a day over those of its window, at most 1.
 * Hours that are missing count as nothing here: whoever asks has looked at them before.
 */
export function shareOfWindow(item: Item): number {
  const spreadH = windowOf(item)?.reduce((sum, [from, to]) => sum + to - from, 0) ?? HOURS_OF_DAY;
  return spreadH === 0 ? 0 : Math.min(1, (item.hoursPerDay ?? 0) / spreadH);
}

export const runsIn = (item: Item, { fromH, toH }: Stretch): boolean =>
  windowOf(item)?.some(([from, to]) => from < toH && to > fromH) !== false;

/** The day cut wherever the window of an item begins or ends. */
export function stretchesOf(circuits: readonly Circuit[]): Stretch[] {
  const edges = new Set([0, HOURS_OF_DAY]);
  for (const { items } of circuits)
    for (const item of items) for (const pair of windowOf(item) ?? []) pair.forEach((at) => edges.add(at));
  const sorted = [...edges].sort((a, b) => a - b);
  return sorted.slice(1).map((toH, index) => ({ fromH: sorted[index] ?? 0, toH }));
}
