import { isUnitPerLine } from '../catalogue/schema.ts';
import type { Complex } from '../network/complex.ts';
import type { CompiledStack } from './installation.ts';
import type { Supply } from './supply.ts';

/**
 * DC power that each unit of a set takes from the battery, W, for a real power on each line: units that make one line share that
 * line; units that make several share all of it. P_dc = P_ac / η.
 *
 * @param lostUnitId takes nothing; the others of its line take its part
 */
export function unitPowersW(
  { stack }: CompiledStack,
  supply: Supply,
  efficiency: number,
  lines: readonly Complex[],
  lostUnitId?: string,
): number[] {
  const present = stack.units.filter((unit) => unit.id !== lostUnitId);
  const perLine = isUnitPerLine(stack.arrangement);
  const total = lines.reduce((sum, line) => sum + line.re, 0);
  return stack.units.map((unit) => {
    if (unit.id === lostUnitId) return 0;
    if (!perLine || unit.line === undefined) return total / present.length / efficiency;
    const alike = present.filter((other) => other.line === unit.line).length;
    const watts = lines[supply.lines.indexOf(unit.line)]?.re ?? 0;
    return watts / alike / efficiency;
  });
}
