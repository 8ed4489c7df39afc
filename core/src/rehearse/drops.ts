import { islandBoard } from '../figures/loads/boards.ts';
import type { Installation } from '../installation/installation.ts';

/** A load that a gap of some length drops. */
export interface Drop {
  readonly what: string;
  readonly longestMs: number;
}

/** The backed-up loads that bear a shorter break than a gap, by what each of them states; measured or expected. */
export function loadsDroppedBy({ stacks }: Installation, gapMs: number): Drop[] {
  return stacks.flatMap((compiled) => {
    const board = islandBoard(compiled);
    if (!board.known) return [];
    return board.value.circuits.flatMap(({ name, items }) =>
      items.flatMap(({ name: what, longestInterruptionMs: longestMs }) =>
        longestMs !== undefined && longestMs < gapMs ? [{ what: `${what} (${name})`, longestMs }] : [],
      ),
    );
  });
}
