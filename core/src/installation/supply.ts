import { field, type Known, mapKnown } from '../values/known.ts';
import type { Line } from '../values/quantities.ts';
import { SUPPLY_LINES } from '../design/references.ts';
import type { Site, SupplyKind } from '../design/schema.ts';
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

/** Supplies that are alike are one: what follows from one of them is then known for the next design as well. */
const alike = new Map<string, Supply>();
const MOST_ALIKE = 64;

function supplyOf(kind: SupplyKind, lineVoltageV: number | undefined): Supply {
  const key = `${kind} ${String(lineVoltageV)}`;
  const before = alike.get(key);
  if (before !== undefined) return before;
  const lines = SUPPLY_LINES[kind];
  const made = { lines, directions: lineVoltages(COUNTS[lines.length] ?? 1, 1), lineVoltageV };
  if (alike.size >= MOST_ALIKE) alike.clear();
  alike.set(key, made);
  return made;
}

export const compileSupply = (site: Site): Known<Supply> =>
  mapKnown(field(site.supply, 'site', 'supply'), (kind) => supplyOf(kind, site.lineVoltageV));
