import { islandBoard } from '../figures/loads/boards.ts';
import { labelOf, oneStart, seeLine, type StartingItem } from '../figures/loads/surges.ts';
import type { CompiledStack } from '../installation/installation.ts';
import { type Known, mapKnown } from '../values/known.ts';
import { islandFigures, lineEvents, type LinePickup, pickupOf, type TransferEvent } from './transfer.ts';

/** Something that starts, by the place it has in the design. */
export interface Starter {
  /** circuit/item */
  readonly key: string;
  readonly label: string;
}

/** One start in island, while everything else runs. */
export interface MotorStart {
  readonly label: string;
  readonly lines: readonly LinePickup[];
  readonly events: readonly TransferEvent[];
}

const keyOf = ({ running: { circuit, item } }: StartingItem): string => `${circuit.id}/${item.id}`;

/** What can start on the boards of a set. */
export const startersOf = (compiled: CompiledStack): Known<readonly Starter[]> =>
  mapKnown(islandBoard(compiled), ({ startingItems }) =>
    startingItems.map((one) => ({ key: keyOf(one), label: labelOf(one) })),
  );

/**
 * One of an item starts on top of the expected peak of all others: line by line against the overload curve, as the limits judge the
 * largest of them. Undefined where nothing of that name starts.
 */
export function motorStart(compiled: CompiledStack, key: string): Known<MotorStart | undefined> {
  const given = islandFigures(compiled);
  if (!given.known) return given;
  const { board } = given.value;
  if (board.starts.missing.length > 0) return { known: false, missing: board.starts.missing };
  return mapKnown(given, ({ capability, supply, type }) => {
    const start = board.startingItems.find((one) => keyOf(one) === key);
    if (start === undefined) return undefined;
    const label = labelOf(start);
    const lines = supply.lines.flatMap((line, index): LinePickup[] => {
      const factor = start.running.factors[index];
      const total = board.expected.knownPart[index];
      if (factor === undefined || total === undefined || (factor.re === 0 && factor.im === 0)) return [];
      return [
        pickupOf(line, oneStart(start, total, seeLine(index)), {
          fromS: 0,
          ratedVa: capability.perLineVa[index] ?? 0,
          running: board.continuous.knownPart[index],
          type,
        }),
      ];
    });
    const bad = lineEvents(compiled, lines).sort((a, b) => a.atS - b.atS);
    return { label, lines, events: [{ atS: 0, sentence: `${label} starts.`, isBad: false }, ...bad] };
  });
}
