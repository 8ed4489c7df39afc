import type { InverterType } from '../../catalogue/inverterType.ts';
import type { Board } from '../../figures/loads/board.ts';
import type { Capability } from '../../figures/capability/capability.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import type { Supply } from '../../installation/supply.ts';
import type { Line } from '../../values/quantities.ts';
import { all, mapKnown } from '../../values/known.ts';
import { type CheckContext, judge, type Measured, NO_WORKING, unknownFinding } from '../check.ts';
import type { Found } from '../finding.ts';
import { remember } from '../../values/remember.ts';
import { fedLines } from './generators.ts';
import { boardInMode, capabilityInMode, stackSubject, stacksInMode } from './subjects.ts';

/** A stack in one mode with everything that can be known of it at hand. */
export interface StackCase {
  readonly compiled: CompiledStack;
  readonly supply: Supply;
  readonly lines: readonly Line[];
  readonly type: InverterType;
  readonly board: Board;
  readonly capability: Capability;
  /** The unit that is away in this mode. */
  readonly lostUnitId: string | undefined;
}

export interface LineCase extends StackCase {
  readonly line: Line;
  readonly index: number;
}

/** The stacks of a mode, each with everything that can be known of it, or with what is missing. */
const stackCases = remember((context: CheckContext) =>
  stacksInMode(context).map((compiled) => ({
    compiled,
    one: mapKnown(
      all({
        supply: context.installation.supply,
        type: compiled.type,
        board: boardInMode(context, compiled),
        capability: capabilityInMode(context, compiled),
      }),
      (given): StackCase => ({
        ...given,
        compiled,
        lines: given.supply.lines,
        lostUnitId: context.mode.lostUnit?.unitId,
      }),
    ),
  })),
);

/** Runs a measurement once per stack of the mode; a stack with something missing is one `unknown` that names it. */
export function eachStack<Key extends string = never>(
  check: string,
  context: CheckContext,
  unit: string,
  measure: (one: StackCase) => readonly (Measured<Key> | undefined)[],
): Found<Key>[] {
  return stackCases(context).flatMap(({ compiled, one }) => {
    // A set that has stopped as a whole is one sentence of its own, not a sum against nothing.
    if (one.known && one.value.capability.stopped) return [];
    if (!one.known) return [unknownFinding(check, context, stackSubject(compiled), unit, one.missing)];
    return measure(one.value)
      .filter((measured) => measured !== undefined)
      .map((measured) => judge(check, context, measured));
  });
}

/** Whether a line has no inverter of a set that makes an island, or its only one is lost: it is dark, and that is told once, by itself. */
export const isDark = ({ mode }: CheckContext, { capability }: StackCase, index: number): boolean =>
  (capability.unitsOnLine[index] ?? 0) === 0 && (capability.carries || mode.lostUnit !== undefined);

/** Runs a measurement once per line of each stack of the mode. Lines that a stack does not feed and nothing loads are left out. */
export function eachLine<Key extends string = never>(
  check: string,
  context: CheckContext,
  unit: string,
  measure: (one: LineCase) => Measured<Key> | undefined,
): Found<Key>[] {
  return eachStack(check, context, unit, (one): (Measured<Key> | undefined)[] => {
    const fed = fedLines(context, one.compiled);
    if (!fed.known)
      return [
        {
          subject: stackSubject(one.compiled),
          value: undefined,
          limit: undefined,
          unit,
          missing: fed.missing,
          working: () => NO_WORKING,
        },
      ];
    return one.lines.map((line, index) => {
      // A set on fewer lines than the building carries nothing on the others.
      if (fed.value !== 'all' && !fed.value.includes(index)) return undefined;
      if (isDark(context, one, index)) return undefined;
      const isBare = (one.capability.unitsOnLine[index] ?? 0) === 0;
      const isAbsent = isBare || (!one.capability.carries && context.mode.kind === 'island');
      return isAbsent && isUnloaded(one.board, index) ? undefined : measure({ ...one, line, index });
    });
  });
}

function isUnloaded(board: Board, index: number): boolean {
  const power = board.connected.knownPart[index];
  return board.connected.missing.length === 0 && (power === undefined || (power.re === 0 && power.im === 0));
}
