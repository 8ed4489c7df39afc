import type { Installation } from '../installation/installation.ts';
import type { CommsLink } from '../installation/network.ts';
import type { Column, Row, Schedule } from './table.ts';

type Key =
  'order' | 'kind' | 'from' | 'fromSocket' | 'to' | 'toSocket' | 'cable' | 'ends' | 'address' | 'idle';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'order', title: 'Make' },
  { key: 'kind', title: 'Bus' },
  { key: 'from', title: 'From' },
  { key: 'fromSocket', title: 'Socket' },
  { key: 'to', title: 'To' },
  { key: 'toSocket', title: 'Socket' },
  { key: 'cable', title: 'Cable' },
  { key: 'ends', title: 'Terminators' },
  { key: 'address', title: 'Address' },
  { key: 'idle', title: 'Idle reading' },
];

const KIND_WORDS: Readonly<Record<CommsLink['kind'], string>> = {
  'parallel-bus': 'parallel bus',
  'battery-bus': 'battery bus',
  'meter-bus': 'meter bus',
  'sensor-pair': 'sensor pair',
};

/** What is hardest to reach is made first: a fault found there costs least then. */
const ORDER: readonly CommsLink['kind'][] = ['meter-bus', 'sensor-pair', 'battery-bus', 'parallel-bus'];

const END_WORDS = {
  internal: 'built in at both ends',
  switch: 'by switch',
  plug: 'by plug',
  none: 'none wanted',
} as const;

type Part = Extract<Installation['network'], { known: true }>['value']['parts'][number];

function terminatorsOf(
  installation: Installation,
  link: CommsLink,
  parts: readonly (Part | undefined)[],
): string | null {
  const stackId = parts.find((part) => part?.stackId !== undefined)?.stackId;
  const compiled = installation.stacks.find(({ stack }) => stack.id === stackId);
  if (compiled === undefined) return null;
  const { stack } = compiled;
  if (link.kind === 'parallel-bus') {
    const rule = compiled.type.known ? compiled.type.value.parallelBus?.ends : undefined;
    if (rule === undefined) return null;
    const here = parts.filter(
      (part) => part?.unitId !== undefined && stack.terminated?.includes(part.unitId) === true,
    );
    return here.length === 0
      ? END_WORDS[rule]
      : `${END_WORDS[rule]}: ${here.map((part) => part?.label ?? '').join(', ')}`;
  }
  if (link.kind !== 'battery-bus' || typeof stack.bank !== 'object') return 'none wanted';
  const type =
    stack.bank.batteryTypeId === undefined ? undefined : compiled.batteryTypes[stack.bank.batteryTypeId];
  if (type?.terminators === undefined) return null;
  const ended = stack.bank.comms?.terminated ?? [];
  const here = parts.filter((part) => part?.moduleId !== undefined && ended.includes(part.moduleId));
  return here.length === 0
    ? END_WORDS[type.terminators]
    : `${END_WORDS[type.terminators]}: ${here.map((part) => part?.label ?? '').join(', ')}`;
}

function addressOf(
  installation: Installation,
  parts: readonly (Part | undefined)[],
  link: CommsLink,
): string {
  const said = parts.flatMap((part) => {
    const compiled = installation.stacks.find(({ stack }) => stack.id === part?.stackId);
    const unit = compiled?.stack.units.find(({ id }) => id === part?.unitId);
    if (link.kind === 'parallel-bus' && unit?.busAddress !== undefined)
      return [`${part?.label ?? ''} ${unit.busAddress}`];
    const bank = compiled?.stack.bank;
    const module =
      typeof bank === 'object' ? bank.modules.find(({ id }) => id === part?.moduleId) : undefined;
    return module?.address === undefined ? [] : [`${part?.label ?? ''} ${module.address}`];
  });
  const meter = installation.controllers
    .flatMap(({ controller }) =>
      controller.meters.map((one) => ({ one, path: ['controllers', controller.id, 'meters', one.id] })),
    )
    .find(({ path }) => path.join('/') === link.from.join('/'))?.one;
  return [...said, ...(meter?.address === undefined ? [] : [`meter ${meter.address}`])].join(', ');
}

function cableOf(installation: Installation, link: CommsLink, part: Part | undefined): string | null {
  const type = installation.stacks.find(({ stack }) => stack.id === part?.stackId)?.type;
  switch (link.kind) {
    case 'parallel-bus': {
      const rule = type?.known === true ? type.value.parallelBus?.cable : undefined;
      return rule === undefined
        ? null
        : rule === 'supplied-only'
          ? 'only the one supplied'
          : 'straight network cable';
    }
    case 'battery-bus':
      return 'straight network cable, or the one supplied';
    case 'meter-bus':
      return 'one twisted pair, shield earthed at one end; no other pair bunched with it';
    case 'sensor-pair':
      return 'its own leads, twisted; lengthened only as its type allows';
  }
}

/** Every link of comms, from socket to socket, in the order in which they are best made: hardest end first. */
export function commsSchedule(installation: Installation): Schedule<Key> {
  const network = installation.network.known ? installation.network.value : undefined;
  const parts = new Map(network?.parts.map((part) => [part.id, part]) ?? []);
  const links = [...(network?.links ?? [])].sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
  const rows = links.map((link, at): Row<Key> => {
    const ends = [parts.get(link.a.partId), parts.get(link.b.partId)];
    const [a, b] = ends;
    const type = installation.stacks.find(({ stack }) => stack.id === (a?.stackId ?? b?.stackId))?.type;
    const idle = type?.known === true ? type.value.pairIdleV : undefined;
    return {
      id: link.id,
      partIds: [link.a.partId, link.b.partId],
      cells: {
        order: at + 1,
        kind: KIND_WORDS[link.kind],
        from: a?.label ?? link.a.partId,
        fromSocket: link.a.socket,
        to: b?.label ?? link.b.partId,
        toSocket: link.b.socket,
        cable: cableOf(installation, link, a ?? b),
        ends: terminatorsOf(installation, link, ends),
        address: addressOf(installation, ends, link),
        idle:
          link.kind === 'sensor-pair'
            ? ''
            : idle === undefined
              ? '3.8 to 5 V, the type states none'
              : `${idle.min} to ${idle.max} V`,
      },
    };
  });
  return {
    kind: 'comms',
    title: 'Comms links',
    columns: COLUMNS,
    rows,
    notes: [
      'Polarity stays the same from end to end. A bus is one line: no star, no branch.',
      ...(rows.length === 0
        ? ['No link is planned yet: buses are plugged in Stack, meters and sensors are listed here.']
        : []),
    ],
  };
}
