import { type Arrangement, type InverterType, isUnitPerLine } from '../../catalogue/inverterType.ts';
import type { SupplyKind } from '../../design/schema.ts';
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

/** The arrangements of a type that make the lines of a supply with so many units, the usual one first. */
export function arrangementsFor(
  type: InverterType,
  supply: SupplyKind,
  units: number,
): readonly Arrangement[] {
  const lines = { 'single-phase': 1, 'split-phase': 2, 'three-phase': 3 }[supply];
  return FOR_SUPPLY[supply].filter(
    (one) =>
      type.arrangements.includes(one) &&
      !(one === 'one-unit' && units > 1) &&
      !(one === 'parallel-single-phase' && units < 2) &&
      !(isUnitPerLine(one) && units < lines),
  );
}

/** The line a unit is dealt: round the lines of a set that makes them one by one, else the first where there are several. */
export function lineOfUnit(
  arrangement: Arrangement | undefined,
  index: number,
  count: number,
  lines: readonly Line[],
): Line | undefined {
  if (isUnitPerLine(arrangement)) return lines[Math.floor((index * lines.length) / count)];
  if ((arrangement === 'one-unit' || arrangement === 'parallel-single-phase') && lines.length > 1)
    return lines[0];
  return undefined;
}
