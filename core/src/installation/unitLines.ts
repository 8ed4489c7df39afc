import { type Arrangement, isUnitPerLine } from '../catalogue/inverterType.ts';
import { type Known, known, unknownAt } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import type { Stack } from './facts.ts';
import type { Supply } from './supply.ts';

/** Arrangements in which a unit feeds some of the lines only. */
export const isPerLine = (arrangement: Arrangement): boolean =>
  arrangement === 'one-unit' ||
  arrangement === 'parallel-single-phase' ||
  arrangement === 'ac-coupled-storage' ||
  isUnitPerLine(arrangement);

/**
 * The lines that each unit feeds, as their numbers. In a ring a unit's second terminal is joined to the first of the next, so it
 * feeds its own line and the one after. Names the places that are missing where the supply leaves a choice.
 */
export function unitLines(
  stack: Stack,
  arrangement: Arrangement,
  supply: Supply,
): Known<ReadonlyMap<string, readonly number[]>> {
  const missing: Path[] = [];
  const lines = new Map<string, readonly number[]>();
  const every = supply.lines.map((_, index) => index);
  for (const unit of stack.units) {
    const at = unit.line === undefined ? undefined : supply.lines.indexOf(unit.line);
    if (!isPerLine(arrangement)) lines.set(unit.id, every);
    else if (at !== undefined)
      lines.set(unit.id, arrangement === 'three-phase-ring' ? [at, (at + 1) % every.length] : [at]);
    else if (every.length === 1) lines.set(unit.id, every);
    else missing.push(['stacks', stack.id, 'units', unit.id, 'line']);
  }
  return missing.length > 0 ? unknownAt(...missing) : known(lines);
}
