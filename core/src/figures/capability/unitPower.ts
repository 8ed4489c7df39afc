import { isUnitPerLine } from '../../catalogue/inverterType.ts';
import { unitLines } from '../../installation/unitLines.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import type { Supply } from '../../installation/supply.ts';

/**
 * DC power that each unit of a set takes from the battery, W, for a real power on each line: the units that meet in a line share
 * that line (in a ring with one half each); units that make all lines share all of it. P_dc = P_ac / η, with η at what the unit gives.
 *
 * @param lostUnitId takes nothing; the others of its line take its part
 */
export function unitPowersW(
  { stack }: CompiledStack,
  supply: Supply,
  efficiencyOf: (watts: number) => number,
  linesW: readonly number[],
  lostUnitId?: string,
): number[] {
  const present = stack.units.filter((unit) => unit.id !== lostUnitId);
  const total = linesW.reduce((sum, line) => sum + line, 0);
  const fed = isUnitPerLine(stack.arrangement)
    ? unitLines(stack, stack.arrangement ?? 'one-unit', supply)
    : undefined;
  return stack.units.map((unit) => {
    if (unit.id === lostUnitId) return 0;
    if (fed === undefined || !fed.known) {
      const watts = total / present.length;
      return watts / efficiencyOf(watts);
    }
    const own = fed.value.get(unit.id) ?? [];
    const watts = own.reduce((sum, line) => {
      const alike = present.filter((other) => fed.value.get(other.id)?.includes(line)).length;
      return sum + (linesW[line] ?? 0) / alike;
    }, 0);
    return watts / efficiencyOf(watts);
  });
}
