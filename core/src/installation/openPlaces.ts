import type { Design, Stack } from '../design/schema.ts';
import type { Path } from '../values/problem.ts';
import type { Installation } from './installation.ts';
import { isBehindStack, isCarriedInIsland } from './partitionKinds.ts';

/** Partitions that hang on a set, while nobody has said on which. */
export const unfedPartitions = <P extends Design['partitions'][number]>(partitions: readonly P[]): P[] =>
  partitions.filter((one) => one.stackId === undefined && isBehindStack(one));

/** Circuits that nobody has placed. */
export function unplacedCircuits({
  circuits,
  partitions,
}: Pick<Design, 'circuits' | 'partitions'>): Design['circuits'] {
  const decided = new Set(partitions.map(({ id }) => id));
  return circuits.filter(({ partitionId }) => partitionId === undefined || !decided.has(partitionId));
}

/** Where it would have to be said what hangs on a set. */
export const openPlaces = ({ undecidedCircuits, partitions }: Installation): Path[] => [
  ...undecidedCircuits.map(({ id }) => ['circuits', id, 'partitionId']),
  ...unfedPartitions(partitions).map(({ id }) => ['partitions', id, 'stackId']),
];

/** The design in which a set takes what nobody has placed, all of it on one of its backup outputs. */
function takenBy(
  design: Design,
  open: ReadonlySet<Design['circuits'][number]>,
  { id: stackId }: Stack,
  partitionId: string,
): Design {
  const unfed = new Set(unfedPartitions(design.partitions));
  return {
    ...design,
    circuits: design.circuits.map((circuit) => (open.has(circuit) ? { ...circuit, partitionId } : circuit)),
    partitions:
      unfed.size === 0
        ? design.partitions
        : design.partitions.map((one) => (unfed.has(one) ? { ...one, stackId } : one)),
  };
}

/** A design that takes what nobody has placed. */
export interface Taken {
  readonly design: Design;
  /** The board that takes it is not in the design: its set has none yet. */
  readonly isOnNewBoard: boolean;
}

/** A board behind a set that has none yet. */
function withBoard(
  design: Design,
  { id, name }: Stack,
): { readonly design: Design; readonly boardId: string } {
  const taken = new Set(design.partitions.map((one) => one.id));
  let boardId = 'open';
  while (taken.has(boardId)) boardId = `${boardId}+`;
  const board = { id: boardId, name, kind: 'backup' as const, stackId: id };
  return { design: { ...design, partitions: [...design.partitions, board] }, boardId };
}

/**
 * What a design may still become while circuits have no place and partitions no set: one design for each backup output there is, which
 * takes all of them. No other way to place them loads that output more.
 */
export function takenByEach(design: Design): Taken[] {
  const open = new Set(unplacedCircuits(design));
  if (open.size === 0 && unfedPartitions(design.partitions).length === 0) return [];
  return design.stacks.flatMap((stack): Taken[] => {
    const byOutput = new Map<string | undefined, string>();
    for (const one of design.partitions)
      if ((one.stackId ?? stack.id) === stack.id && isCarriedInIsland(one) && !byOutput.has(one.outputId))
        byOutput.set(one.outputId, one.id);
    if (byOutput.size === 0) {
      const made = withBoard(design, stack);
      return [{ design: takenBy(made.design, open, stack, made.boardId), isOnNewBoard: true }];
    }
    return [...byOutput.values()].map((id) => ({
      design: takenBy(design, open, stack, id),
      isOnNewBoard: false,
    }));
  });
}
