import type { Partition } from '../design/schema.ts';

/** Carried by the stack at the start of an outage. A shed stage whose moment is not known counts as carried. */
export const isCarriedInIsland = (partition: Partition): boolean =>
  partition.kind === 'backup' || (partition.kind === 'shed' && partition.shedWhen !== 'at-transfer');

/** Fed through the stack while the grid is there. */
export const isBehindStack = (partition: Partition): boolean =>
  partition.kind === 'backup' || partition.kind === 'shed' || partition.kind === 'locked-out';
