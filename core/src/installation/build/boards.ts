import type { Partition } from '../facts.ts';
import { MODE_KINDS } from '../modeKinds.ts';
import type { ClosedIn, Port } from '../network.ts';
import { isCarriedInIsland } from '../partitionKinds.ts';
import type { Given } from './given.ts';
import { isFedIn } from '../fedSets.ts';
import { ALWAYS, closedIn, type Laying } from './laying.ts';
import { deviceBehind } from './lines.ts';
import type { LaidSet } from './outputs.ts';
import { buildingNames } from './service.ts';

export const boardPartId = (partitionId: string): string => `board ${partitionId}`;

/** When the contactor ahead of a partition is closed; undefined where there is none. What waits for a generator waits for that of its set. */
function contactorOf(partition: Partition, generators: Given['design']['generators']): ClosedIn | undefined {
  switch (partition.kind) {
    case 'grid':
    case 'backup':
      return undefined;
    case 'shed':
      return isCarriedInIsland(partition) ? ALWAYS : closedIn('on-grid', 'maintenance-bypass');
    case 'locked-out':
      return closedIn('on-grid', 'maintenance-bypass');
    case 'generator-only':
      return closedIn(
        'on-grid',
        'maintenance-bypass',
        'generator-inlet',
        ...(['generator-port', 'transfer-switch'] as const).filter(
          (kind) => partition.stackId === undefined || isFedIn(kind, partition.stackId, generators),
        ),
      );
  }
}

/** Each partition as a board behind its main device; a link of neutral and earth in it is a bond. Circuits are laid apart. */
export function layBoards(laying: Laying, given: Given, service: Port, sets: readonly LaidSet[]): void {
  const { design } = given;
  const names = buildingNames(given);
  for (const partition of design.partitions) {
    const from = ['partitions', partition.id];
    const part = laying.part({
      id: boardPartId(partition.id),
      kind: 'board',
      label: partition.name,
      from,
      partitionId: partition.id,
      ...(partition.stackId === undefined ? {} : { stackId: partition.stackId }),
    });
    const bus = laying.port(part, 'bus', names);
    const neutral = bus.terminals.find(({ name }) => name === 'N');
    if (partition.neutralEarthLink === 'yes' && neutral !== undefined)
      laying.bonds.push({
        id: `link ${partition.id}`,
        partId: part.id,
        label: `the neutral–earth link in ${partition.name}`,
        neutral: neutral.id,
        closedIn: ALWAYS,
        from: [...from, 'neutralEarthLink'],
      });
    const set = sets.find(({ compiled }) => compiled.stack.id === partition.stackId);
    const feed =
      partition.kind === 'grid' ? service : (set?.feeds.get(partition.outputId ?? '') ?? set?.feeds.get(''));
    if (feed !== undefined) {
      let upstream = feed;
      const shut = contactorOf(partition, design.generators);
      if (shut !== undefined) {
        const contactor = laying.part({
          id: `contactor ${partition.id}`,
          kind: 'contactor',
          label: `contactor of ${partition.name}`,
          from: [...from, 'kind'],
          partitionId: partition.id,
        });
        const inPort = laying.port(contactor, 'in', names);
        upstream = laying.port(contactor, 'out', names);
        // Lines alone are opened: neutrals of one board stay together.
        laying.poles(inPort, upstream, { lines: shut, neutral: ALWAYS });
        laying.run(feed, inPort, { use: 'ac', from });
      }
      const behind = deviceBehind(laying, upstream, {
        id: `board-main ${partition.id}`,
        label: `main of ${partition.name}`,
        role: 'board-main',
        of: { partitionId: partition.id },
        devices: design.devices,
        find: given.find,
        more: { partitionId: partition.id },
      });
      laying.run(behind, bus, { use: 'ac', from });
    }
  }
}

/** Sets that share the grid run in step with it; sets under one controller also with each other in island. */
export function layInStep(laying: Laying, given: Given, sets: readonly LaidSet[], gridId: string): void {
  const idsOf = (some: readonly LaidSet[]): string[] =>
    some.flatMap(({ units }) => units.filter((unit) => unit.outputs.length > 0).map(({ part }) => part.id));
  const all = idsOf(sets);
  if (all.length > 0) laying.inStep.push({ sources: [gridId, ...all], modes: ['on-grid'] });
  for (const { stackIds } of given.design.controllers) {
    const led = idsOf(sets.filter(({ compiled }) => stackIds.includes(compiled.stack.id)));
    if (led.length > 1) laying.inStep.push({ sources: led, modes: MODE_KINDS });
  }
}

/** The bars of the first board that one of some sets backs up; undefined where they back up none. */
export function backedUpBars(
  { ports }: Laying,
  { partitions }: Pick<Given['design'], 'partitions'>,
  stackIds: readonly string[],
): Port | undefined {
  const board = partitions.find(
    ({ kind, stackId }) => kind === 'backup' && stackId !== undefined && stackIds.includes(stackId),
  );
  return board && ports.find(({ partId, role }) => role === 'bus' && partId === boardPartId(board.id));
}
