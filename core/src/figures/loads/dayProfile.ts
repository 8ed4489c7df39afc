import type { Path } from '../../values/problem.ts';
import { type Circuit, DURATION_POINTS } from '../../installation/facts.ts';
import { HOURS_OF_DAY, runsInHour } from './circuitPower.ts';

/** What a set of circuits is expected to draw in each hour of a day, W, and what is missing from it. */
export interface DayProfile {
  readonly hourW: readonly number[];
  readonly missing: readonly Path[];
}

/**
 * Estimated day of a set of circuits: each item at quantity · W · demand in the hours in which it may run. What is not known
 * is named and left out of the sum.
 */
export function dayProfile(circuits: readonly Circuit[]): DayProfile {
  const hourW = new Array<number>(HOURS_OF_DAY).fill(0);
  const missing: Path[] = [];
  for (const circuit of circuits) {
    if (circuit.items.length === 0) missing.push(['circuits', circuit.id, 'items']);
    for (const item of circuit.items) {
      const { quantity, runningW, demandFactor } = item;
      const path = ['circuits', circuit.id, 'items', item.id];
      if (quantity === undefined) missing.push([...path, 'quantity']);
      if (runningW === undefined) missing.push([...path, 'runningW']);
      if (demandFactor === undefined) missing.push([...path, 'demandFactor']);
      if (quantity === undefined || runningW === undefined || demandFactor === undefined) continue;
      for (let hour = 0; hour < HOURS_OF_DAY; hour += 1)
        if (runsInHour(item, hour)) hourW[hour] = (hourW[hour] ?? 0) + quantity * runningW * demandFactor;
    }
  }
  return { hourW, missing };
}

/** The same day as a load-duration curve: power reached or exceeded for 0, 1, … 100 % of the hours. */
export function profileDurationW({ hourW }: DayProfile): number[] {
  const sorted = [...hourW].sort((a, b) => b - a);
  return Array.from({ length: DURATION_POINTS }, (_, percent) => {
    const place = Math.round((percent / (DURATION_POINTS - 1)) * (sorted.length - 1));
    return sorted[place] ?? 0;
  });
}
