import { IDLE_V } from '../figures/comms/linkFigures.ts';
import { type ColourOrder, coreOfPin } from '../codes/pairColours.ts';
import { type LinkFigure, linkFigures } from '../figures/comms/linkFigures.ts';
import type { Installation } from '../installation/installation.ts';
import type { CommsLink, LinkEnd, LinkKind } from '../installation/network.ts';
import { LINK_WORDS } from '../figures/comms/linkWords.ts';
import type { DeliveryTick } from '../design/delivery.ts';
import { fieldId } from './fieldId.ts';
import { isInside } from './readBack.ts';
import type { Column, Row, RowState, Schedule } from './table.ts';

type Key =
  | 'order'
  | 'kind'
  | 'from'
  | 'fromSocket'
  | 'fromPins'
  | 'to'
  | 'toSocket'
  | 'toPins'
  | 'cable'
  | 'length'
  | 'shield'
  | 'ends'
  | 'address'
  | 'idle'
  | 'made'
  | 'note';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'order', title: 'Make' },
  { key: 'kind', title: 'Bus' },
  { key: 'from', title: 'From' },
  { key: 'fromSocket', title: 'Socket' },
  { key: 'fromPins', title: 'Pins and cores' },
  { key: 'to', title: 'To' },
  { key: 'toSocket', title: 'Socket' },
  { key: 'toPins', title: 'Pins and cores' },
  { key: 'cable', title: 'Cable' },
  { key: 'length', title: 'Length', unit: 'm' },
  { key: 'shield', title: 'Shield' },
  { key: 'ends', title: 'Terminators' },
  { key: 'address', title: 'Address' },
  { key: 'idle', title: 'Idle reading' },
  { key: 'made', title: 'Made' },
  { key: 'note', title: 'Mind' },
];

/** What is hardest to reach is made first: a fault found there costs least then. */
const ORDER: readonly LinkKind[] = [
  'meter-bus',
  'sensor-pair',
  'shutdown-link',
  'dry-contact',
  'box-bus',
  'control-supply',
  'controller-bus',
  'battery-bus',
  'parallel-bus',
  'network',
];

/** Kinds whose cores carry no bus of the set: no pair idles there, nothing is terminated. */
const PLAIN: ReadonlySet<LinkKind> = new Set([
  'sensor-pair',
  'dry-contact',
  'control-supply',
  'shutdown-link',
  'network',
]);
/** Kinds that carry nothing a shield would keep out. */
const UNSHIELDED: ReadonlySet<LinkKind> = new Set(['dry-contact', 'control-supply', 'shutdown-link']);
const PLUGGED: ReadonlySet<LinkKind> = new Set(['parallel-bus', 'battery-bus', 'network']);

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
  if (compiled === undefined) return PLAIN.has(link.kind) ? '' : null;
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
  if (PLAIN.has(link.kind)) return '';
  if (link.kind !== 'battery-bus' || typeof stack.bank !== 'object') return null;
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
    case 'controller-bus':
      return 'one twisted pair or a straight network cable, as its manual says';
    case 'sensor-pair':
      return 'its own leads, twisted; lengthened only as its type allows';
    case 'dry-contact':
      return 'two cores, free of voltage: prove that before they are joined';
    case 'box-bus':
      return 'one twisted pair and its ground, in one cable; no other pair bunched with it';
    case 'control-supply':
      return 'two cores for the coil, on a device of their own';
    case 'network':
      return link.by === 'radio' ? 'none: by radio' : 'straight network cable';
    case 'shutdown-link':
      return 'as its transmitter wants, apart from the strings';
  }
}

const WIRED_WORDS = {
  supplied: 'the one supplied',
  network: 'straight network cable',
  pair: 'one pair, landed core by core',
} as const;

const SHIELD_WORDS = {
  'one-end': 'earthed at one end',
  'both-ends': 'earthed at both ends',
  neither: 'earthed nowhere',
  none: 'no shield',
} as const;

/** A pin with the core that a network cable has there, as "+ 4 blue, − 5 white-blue". */
function pinWords({ pins }: LinkEnd, order: ColourOrder): string | null {
  if (pins === undefined) return null;
  const core = (pin: string): string => {
    const colour = coreOfPin(order, pin);
    return colour === undefined ? pin : `${pin} ${colour}`;
  };
  const ground = pins.ground === undefined ? '' : `, ground ${core(pins.ground)}`;
  return `+ ${core(pins.plus)}, − ${core(pins.minus)}${ground}`;
}

/** How a cable as somebody has said that it is made stands: a shield alone makes it tight. */
function madeWrong(wired: LinkFigure['wired']): RowState | undefined {
  if (wired?.polarity === 'swapped' || wired?.pairs === 'bunched') return 'over';
  return wrongOf(wired).length > 0 ? 'tight' : undefined;
}

/** What is wrong with a cable as somebody has said that it is made. */
const wrongOf = (wired: LinkFigure['wired']): string[] => [
  ...(wired?.polarity === 'swapped' ? ['+ is landed on −: exchange the two cores at one end'] : []),
  ...(wired?.pairs === 'bunched' ? ['cores of several pairs are bunched: land one twisted pair'] : []),
  ...(wired?.shield === 'both-ends' ? ['its shield is earthed at both ends: lift it at one'] : []),
  ...(wired?.shield === 'neither' ? ['its shield is earthed nowhere: earth it at the reader'] : []),
];

/** What to mind when the cable is made. */
function notesOf({ link, straight, isSplit, longestM, wired }: LinkFigure, isShared: boolean): string {
  return [
    ...wrongOf(wired),
    ...(straight === 'exchanged'
      ? ['+ and − lie crosswise: a straight cable does not do, land it core by core']
      : straight === 'elsewhere'
        ? ['pins differ: a straight cable does not do, land it core by core']
        : []),
    ...(isSplit && !PLUGGED.has(link.kind)
      ? ['its pins lie in two pairs of a network cable: take one pair for both']
      : []),
    ...(isShared ? ['two cables share this terminal: crimp their cores together in one ferrule'] : []),
    ...(link.by === 'radio' ? ['read its signal where it hangs, with its cover on, before it is left'] : []),
    ...(longestM === undefined ? [] : [`at most ${longestM} m`]),
  ].join('; ');
}

/** Sockets of screw terminals in which two cables of one bus meet. */
function sharedEnds(links: readonly CommsLink[]): ReadonlySet<string> {
  const seen = new Set<string>();
  const shared = new Set<string>();
  for (const { kind, a, b } of links) {
    // The leads of each sensor have terminals of their own: they are never crimped to those of another.
    if (PLUGGED.has(kind) || kind === 'sensor-pair') continue;
    for (const { partId, socket } of [a, b]) {
      const key = `${partId} ${socket}`;
      if (seen.has(key)) shared.add(key);
      seen.add(key);
    }
  }
  return shared;
}

/** What is noted of a link on site. */
export const linkTickId = (linkId: string): string => fieldId('k', linkId);

/** How an idle voltage that was read stands to its window; nothing while nobody has read it. */
function stateOfReading(
  tick: DeliveryTick | undefined,
  idle: { readonly min: number; readonly max: number } = IDLE_V,
): RowState | undefined {
  const inside = isInside(idle, tick?.read ?? null);
  return inside === undefined ? undefined : inside ? 'within' : 'over';
}

const madeWords = (tick: DeliveryTick | undefined): string =>
  [
    ...(tick?.state === undefined ? [] : [tick.state === 'ready' ? 'made' : 'to be made again']),
    ...(tick?.read === undefined ? [] : [`idle ${tick.read}`]),
    ...(tick?.by === undefined ? [] : [tick.by]),
  ].join(', ');

/** Every link of comms, from socket to socket, in the order in which they are best made: hardest end first. */
export function commsSchedule(
  installation: Installation,
  delivery: readonly DeliveryTick[] = [],
): Schedule<Key> {
  const ticks = new Map(delivery.map((tick) => [tick.id, tick]));
  const found = linkFigures(installation);
  const figures = [...(found.known ? found.value : [])].sort(
    (a, b) => ORDER.indexOf(a.link.kind) - ORDER.indexOf(b.link.kind),
  );
  const order = installation.wiring?.colours ?? 'B';
  const shared = sharedEnds(figures.map(({ link }) => link));
  const rows = figures.map((figure, at): Row<Key> => {
    const { link, ends, wired } = figure;
    const [a, b] = ends;
    const type = installation.stacks.find(({ stack }) => stack.id === (a?.stackId ?? b?.stackId))?.type;
    const idle = type?.known === true ? type.value.pairIdleV : undefined;
    const isShared = [link.a, link.b].some(({ partId, socket }) => shared.has(`${partId} ${socket}`));
    // Of a cable that comes plugged, and of two cores without polarity, nobody needs the pins.
    const hasPins = !PLAIN.has(link.kind) && !figure.suppliedOnly;
    const tick = ticks.get(linkTickId(link.id));
    const read = PLAIN.has(link.kind) ? undefined : stateOfReading(tick, idle);
    const state = madeWrong(wired) ?? read;
    return {
      id: link.id,
      partIds: [link.a.partId, link.b.partId],
      ...(state === undefined ? {} : { state }),
      cells: {
        order: at + 1,
        kind: LINK_WORDS[link.kind],
        from: a?.label ?? link.a.partId,
        fromSocket: link.a.socket,
        fromPins: hasPins ? pinWords(link.a, order) : '',
        to: b?.label ?? link.b.partId,
        toSocket: link.b.socket,
        toPins: hasPins ? pinWords(link.b, order) : '',
        cable: wired?.cable === undefined ? cableOf(installation, link, a ?? b) : WIRED_WORDS[wired.cable],
        length: wired?.lengthM ?? null,
        shield:
          wired?.shield === undefined
            ? PLUGGED.has(link.kind) || UNSHIELDED.has(link.kind)
              ? ''
              : 'drain wire earthed at one end, at the reader'
            : SHIELD_WORDS[wired.shield],
        ends: terminatorsOf(installation, link, ends),
        address: addressOf(installation, ends, link),
        idle: PLAIN.has(link.kind)
          ? ''
          : idle === undefined
            ? `${IDLE_V.min} to ${IDLE_V.max} V, the type states none`
            : `${idle.min} to ${idle.max} V`,
        made: madeWords(tick),
        note: notesOf(figure, isShared),
      },
    };
  });
  return {
    kind: 'comms',
    title: 'Comms links',
    columns: COLUMNS,
    rows,
    notes: [
      `Polarity stays the same from end to end. A bus is one line: no star, no branch. Cores by colour order ${order} of network cable${installation.wiring?.colours === undefined ? ', as planned' : ''}.`,
      ...(rows.length === 0
        ? ['No link is planned yet: buses are plugged in Stack, meters and sensors are listed here.']
        : []),
    ],
  };
}
