import type { Installation } from '../installation/installation.ts';
import { unfedPartitions } from '../installation/openPlaces.ts';

/** How many names a sentence tells before it counts the rest. */
const NAMED = 3;

function namesOf(things: readonly { readonly name: string }[]): string {
  const rest = things.length - NAMED;
  return (
    things
      .slice(0, NAMED)
      .map(({ name }) => name)
      .join(', ') + (rest > 0 ? ` and ${rest} more` : '')
  );
}

/** What nobody has put on a set yet may come to it: its load is in no minute of the outage, and that is said. */
export function openPlaceSentences({ undecidedCircuits, partitions, circuits }: Installation): string[] {
  const unfed = unfedPartitions(partitions).filter(({ id }) =>
    circuits.some(({ partitionId }) => partitionId === id),
  );
  return [
    ...(undecidedCircuits.length === 0
      ? []
      : [`Circuits without a place are left out: ${namesOf(undecidedCircuits)}.`]),
    ...(unfed.length === 0
      ? []
      : [`What hangs on partitions that no set feeds is left out: ${namesOf(unfed)}.`]),
  ];
}
