import type { CompiledStack } from '../../installation/installation.ts';
import { all, type Known, known, mapKnown } from '../../values/known.ts';
import type { Line } from '../../values/quantities.ts';
import { autonomy, quotedHours } from '../bank/autonomy.ts';
import { islandBoard } from '../loads/boards.ts';
import { capabilityWithout } from './capability.ts';

/** What a set still carries when one of its units is lost. */
export interface Remains {
  /** By type the set stops as a whole. */
  readonly stops: boolean;
  readonly lines: readonly { readonly line: Line; readonly usableVa: number }[];
  readonly darkLines: readonly Line[];
  readonly carriedCircuits: number;
  /** Names of circuits that need a line that is dark. */
  readonly darkCircuits: readonly string[];
  /** From the reserve with what is still carried, from the worst hour where items state theirs; undefined without a battery. */
  readonly hours: Known<number> | undefined;
}

/** How long the battery lasts from the reserve. */
function hoursOf(compiled: CompiledStack): Known<number> | undefined {
  const found = autonomy(compiled, 'reserve', 'average');
  return found === undefined ? undefined : mapKnown(found, quotedHours);
}

/** Which lines and circuits are carried, and for how long, without one unit. */
export function remainsWithout(compiled: CompiledStack, unitId: string): Known<Remains> {
  const given = all({
    capability: capabilityWithout(compiled, unitId),
    supply: compiled.supply,
    board: islandBoard(compiled),
  });
  return mapKnown(given, ({ capability, supply, board }): Remains => {
    const lines = supply.lines.flatMap((line, index) => {
      const usableVa = capability.perLineVa[index] ?? 0;
      return usableVa > 0 ? [{ line, usableVa }] : [];
    });
    const live = new Set(lines.map(({ line }) => line));
    const isDark = (needs: readonly Line[] | undefined): boolean =>
      needs === undefined ? live.size === 0 : needs.some((line) => !live.has(line));
    const carried = board.circuits.filter((circuit) => !isDark(circuit.lines));
    const ids = new Set(carried.map(({ id }) => id));
    const rest: CompiledStack = {
      ...compiled,
      stack: { ...compiled.stack, units: compiled.stack.units.filter(({ id }) => id !== unitId) },
      circuits: compiled.circuits.filter(({ id }) => ids.has(id)),
    };
    return {
      stops: capability.stopped,
      lines,
      darkLines: supply.lines.filter((line) => !live.has(line)),
      carriedCircuits: carried.length,
      darkCircuits: board.circuits.filter((circuit) => isDark(circuit.lines)).map(({ name }) => name),
      hours: carried.length === 0 ? known(0) : hoursOf(rest),
    };
  });
}
