import { feedsNothing } from '../../figures/capability/capability.ts';
import { boardPartId } from '../../installation/build/boards.ts';
import { isFedIn } from '../../installation/fedSets.ts';
import { isCarriedInIsland } from '../../installation/partitionKinds.ts';
import type { Partition } from '../../installation/facts.ts';
import type { Installation } from '../../installation/installation.ts';
import type { Mode } from '../../modes/modes.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import { onNetwork, pathWords, refsOf } from '../support/network.ts';
import { pathToBoard } from '../../modes/walk.ts';

/** Whether a board is meant to be live in a mode. */
function isMeant(partition: Partition, mode: Mode, { generators }: Installation): boolean {
  const connected = generators.map(({ generator }) => generator);
  switch (mode.kind) {
    case 'island':
      return isCarriedInIsland(partition);
    case 'generator-port':
    case 'transfer-switch':
      return (
        isCarriedInIsland(partition) ||
        (partition.kind === 'generator-only' && isFedIn(mode.kind, partition.stackId ?? '', connected))
      );
    default:
      return false;
  }
}

/** A set that makes no AC in island is told by its own check. */
function makesNothing({ stacks }: Installation, partition: Partition): boolean {
  const set = stacks.find(({ stack }) => stack.id === partition.stackId);
  return (
    set === undefined || (set.type.known && feedsNothing(set.stack.arrangement ?? 'one-unit', set.type.value))
  );
}

/** A board that is backed up must have a source in island and while a generator runs. */
export const bondingLiveBoards: Check<'bonding.live-boards'> = checkOf({
  id: 'bonding.live-boards',
  title: 'Backed-up boards have a source',
  family: 'bonding',
  modes: ['island', 'generator-port', 'transfer-switch'],
  sentences: {
    over: '{{subject}} has no source: no running inverter or generator reaches it.',
    tight: '{{subject}} is live.',
    within: '{{subject}} is live.',
    unknown: '{{subject}}: whether it is live is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(
      bondingLiveBoards.id,
      context,
      ({ network, facts }) =>
        context.installation.partitions
          .filter(
            (one) =>
              isMeant(one, context.mode, context.installation) && !makesNothing(context.installation, one),
          )
          .map((partition) => {
            const id = boardPartId(partition.id);
            const isLive = facts.live.some(({ partId }) => partId === id);
            return judge(bondingLiveBoards.id, context, {
              subject: { kind: 'part', id, label: partition.name, about: refsOf(network, [id]) },
              value: isLive ? 1 : 0,
              limit: 1,
              unit: '',
              bound: 'at-least',
              graded: false,
              missing: isLive ? [] : network.gaps,
              working: () => ({
                ...NO_WORKING,
                source:
                  'From each source that runs in this mode every closed contact is followed to the board.',
                notes: [
                  isLive
                    ? `The way: ${pathWords(network, pathToBoard(network, context.mode, id))}.`
                    : 'Nothing reaches it.',
                ],
              }),
            });
          }),
      // From its inverters or from the generator: either way it is live.
      false,
    ),
});
