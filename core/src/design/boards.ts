import type { Design, Partition, PartitionKind } from './schema.ts';

/** What each kind of board is called until somebody names it. */
export const BOARD_NAMES: Record<PartitionKind, string> = {
  grid: 'Grid side',
  backup: 'Backup output',
  shed: 'Shed stage',
  'locked-out': 'Locked out in island',
  'generator-only': 'Generator only',
};

/** How people write which of the two usual boards a circuit belongs on. The first that a cell holds counts. */
const WORDS: readonly (readonly [PartitionKind, RegExp])[] = [
  ['grid', /non.?(essential|critical|backed)|not (essential|critical|backed)|^no$|grid|mains|utility|normal/],
  ['backup', /back.?up|backed|essential|critical|\beps\b|^yes$|island|protected/],
];

/** The kind of board that a cell means in words; undefined where it says nothing that is known. */
export function boardKind(text: string): PartitionKind | undefined {
  const plain = text.trim().toLowerCase();
  return WORDS.find(([, pattern]) => pattern.test(plain))?.[0];
}

/** A board of a kind with its usual name, fed by the stack where there is only one. */
export function usualBoard(design: Design, kind: PartitionKind, id: string): Partition {
  const alike = design.partitions.filter((one) => one.kind === kind).length;
  const [stack, ...others] = design.stacks;
  const fedBy = kind === 'grid' || others.length > 0 ? undefined : stack?.id;
  return {
    id,
    name: alike === 0 ? BOARD_NAMES[kind] : `${BOARD_NAMES[kind]} ${alike + 1}`,
    kind,
    ...(fedBy === undefined ? {} : { stackId: fedBy }),
    ...(kind === 'shed' ? { shedStage: alike + 1 } : {}),
  };
}

/**
 * The board that somebody names: one of the design by its name, else one of the kind the word means; a new one of that kind where
 * the design has none. Undefined where the word means nothing.
 */
export function boardCalled(design: Design, text: string, newId: () => string): Partition | undefined {
  const plain = text.trim().toLowerCase();
  const named = design.partitions.find(({ name }) => name.toLowerCase() === plain);
  if (named !== undefined) return named;
  const kind = boardKind(plain);
  if (kind === undefined) return undefined;
  const ofKind = design.partitions.filter((one) => one.kind === kind);
  // Of several of a kind nobody can tell which is meant.
  if (ofKind.length > 1) return undefined;
  return ofKind[0] ?? usualBoard(design, kind, newId());
}
