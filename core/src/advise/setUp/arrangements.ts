import {
  type Arrangement,
  fitsVoltage,
  type InverterType,
  isUnitPerLine,
} from '../../catalogue/inverterType.ts';
import { SUPPLY_LINES } from '../../design/references.ts';
import type { Design, SupplyKind } from '../../design/schema.ts';
import type { Line } from '../../values/quantities.ts';

/** The arrangements that make the lines of a supply, those that need least beside the units first. */
const FOR_SUPPLY: Record<SupplyKind, readonly Arrangement[]> = {
  'single-phase': ['one-unit', 'parallel-single-phase', 'ac-coupled-storage', 'dc-side-box'],
  'split-phase': [
    'split-phase-native',
    'split-phase-from-single',
    'split-phase-autotransformer',
    'ac-coupled-storage',
    'dc-side-box',
  ],
  'three-phase': [
    'three-phase-native',
    'three-phase-from-single',
    'three-phase-ring',
    'ac-coupled-storage',
    'dc-side-box',
  ],
};

/** Sets of single-phase units on one line of a larger supply: the others are dark in an island. */
const ON_ONE_LINE: readonly Arrangement[] = ['one-unit', 'parallel-single-phase'];

/** Whether an arrangement makes one line alone, however many the supply has. */
export const isOnOneLine = (arrangement: Arrangement | undefined): boolean =>
  arrangement !== undefined && ON_ONE_LINE.includes(arrangement);

type About = Pick<Design['site'], 'supply' | 'lineVoltageV'>;

/**
 * The arrangements of a type that serve a supply with so many units, the usual one first; those that serve one of its lines alone come
 * last. None where the supply is not known.
 */
export function arrangementsFor(
  type: InverterType,
  { supply, lineVoltageV }: About,
  units: number,
): readonly Arrangement[] {
  if (supply === undefined) return [];
  const lines = SUPPLY_LINES[supply].length;
  return [...new Set([...FOR_SUPPLY[supply], ...ON_ONE_LINE])].filter(
    (one) =>
      type.arrangements.includes(one) &&
      (lineVoltageV === undefined || fitsVoltage(type, one, lineVoltageV)) &&
      !(one === 'one-unit' && units > 1) &&
      !(one === 'parallel-single-phase' && units < 2) &&
      !(isUnitPerLine(one) && units < lines),
  );
}

/** What a type can do for a supply, with as many units as it needs. */
export function fitOf(type: InverterType, site: About): 'its lines' | 'one line' | 'nothing' {
  if (site.supply === undefined) return 'its lines';
  const possible = new Set([1, 2, 3].flatMap((units) => arrangementsFor(type, site, units)));
  if (FOR_SUPPLY[site.supply].some((one) => possible.has(one))) return 'its lines';
  return possible.size > 0 ? 'one line' : 'nothing';
}

/** The line a unit is dealt: round the lines of a set that makes them one by one, else the first where there are several. */
export function lineOfUnit(
  arrangement: Arrangement | undefined,
  index: number,
  count: number,
  lines: readonly Line[],
): Line | undefined {
  if (isUnitPerLine(arrangement)) return lines[Math.floor((index * lines.length) / count)];
  if (isOnOneLine(arrangement) && lines.length > 1) return lines[0];
  return undefined;
}
