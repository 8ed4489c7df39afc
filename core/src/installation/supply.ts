import { field, type Known, mapKnown } from '../values/known.ts';
import type { Line } from '../values/quantities.ts';
import { SUPPLY_LINES } from '../design/references.ts';
import type { Site } from '../design/schema.ts';
import type { Complex } from '../network/complex.ts';
import { lineVoltages } from '../network/phasors.ts';

/** The supply as the rest of the model needs it. */
export interface Supply {
  readonly lines: readonly Line[];
  /** Directions of the line voltages, 1 V long: enough to share a load among its lines. */
  readonly directions: readonly Complex[];
  /** Line to neutral; undefined while it is not known. */
  readonly lineVoltageV: number | undefined;
}

const COUNTS: Record<number, 1 | 2 | 3> = { 1: 1, 2: 2, 3: 3 };

export function compileSupply(site: Site): Known<Supply> {
  return mapKnown(field(site.supply, 'site', 'supply'), (kind) => {
    const lines = SUPPLY_LINES[kind];
    return {
      lines,
      directions: lineVoltages(COUNTS[lines.length] ?? 1, 1),
      lineVoltageV: site.lineVoltageV,
    };
  });
}
