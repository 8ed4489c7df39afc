import type { TerminalRow } from '../catalogue/common.ts';
import type { DeliveryTick } from '../design/delivery.ts';
import { leadSizeWords, namedIn, thickestWords, thinnestWords } from '../codes/leadSizes.ts';
import { endFor, type EndKind, isClicked, pullN, toolFor } from '../codes/terminations.ts';
import type { CableLine, End, LineDevice } from '../figures/wiring/cableLine.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import type { Installation } from '../installation/installation.ts';
import type { Part, Port, TerminalName } from '../installation/network.ts';
import { energisers } from '../modes/energisers.ts';
import { sizeLine } from '../sizing/sizeLine.ts';
import { groupBy } from '../values/groupBy.ts';
import type { Known } from '../values/known.ts';
import { counted } from '../words/quantity.ts';
import { fieldId } from './fieldId.ts';
import type { Column, Row, RowState, Schedule } from './table.ts';

type Key =
  | 'part'
  | 'port'
  | 'terminal'
  | 'cable'
  | 'size'
  | 'order'
  | 'end'
  | 'strip'
  | 'torque'
  | 'tool'
  | 'pull'
  | 'shared'
  | 'dead'
  | 'note'
  | 'landed';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'part', title: 'Part' },
  { key: 'port', title: 'Port' },
  { key: 'terminal', title: 'Terminal' },
  { key: 'cable', title: 'Cable' },
  { key: 'size', title: 'Size' },
  { key: 'order', title: 'Order' },
  { key: 'end', title: 'End' },
  { key: 'strip', title: 'Strip', unit: 'mm' },
  { key: 'torque', title: 'Torque', unit: 'Nm' },
  { key: 'tool', title: 'Tool' },
  { key: 'pull', title: 'Pull', unit: 'N' },
  { key: 'shared', title: 'In this terminal' },
  { key: 'dead', title: 'Off and proven dead first' },
  { key: 'note', title: 'Mind' },
  { key: 'landed', title: 'Landed' },
];

/** Where a conductor is landed: a port of a part, or one side of a device that its cable is cut at. */
interface Place {
  readonly partId: string;
  readonly label: string;
  readonly portLabel: string;
  /** Unique; the same for every conductor that is landed there. */
  readonly placeId: string;
  readonly takes: Known<TerminalRow>;
  readonly hasType: boolean;
  /** Which conductors of the cable are landed there; all of them without it. */
  readonly poles: ReadonlySet<TerminalName> | undefined;
}

/** One end of one conductor. */
interface Landing {
  readonly line: CableLine;
  readonly place: Place;
  readonly name: TerminalName;
  readonly areaMm2: number | undefined;
}

/** The size that is stated, else the smallest that passes. */
export function plannedMm2(installation: Installation, line: CableLine): number | undefined {
  if (line.areaMm2.known) return line.areaMm2.value;
  const sized = sizeLine(installation, line);
  return sized?.known === true && sized.value.smallest.kind === 'found'
    ? sized.value.smallest.areaMm2
    : undefined;
}

/** The size of one conductor of a cable: its protective conductor may be thinner. */
export function conductorMm2(
  installation: Installation,
  line: CableLine,
  name: TerminalName,
): number | undefined {
  const own = line.cable?.protectiveMm2;
  if (name !== 'PE' || line.use === 'earth') return plannedMm2(installation, line);
  if (own !== undefined) return own;
  const sized = sizeLine(installation, line);
  return sized?.known === true ? sized.value.protectiveMm2 : undefined;
}

type PartsById = ReadonlyMap<string, Part>;

/** Bars and boards of no type have no terminals that anybody could look up. */
const hasTerminals = (port: Port): boolean => port.role !== 'bus' || port.takes.known;

function placeAtEnd({ port, partId, label }: End, parts: PartsById): Place[] {
  if (port === undefined || !hasTerminals(port)) return [];
  const typeName = parts.get(partId)?.typeName;
  return [
    {
      partId,
      label,
      portLabel: port.label,
      placeId: port.id,
      takes: port.takes,
      hasType: typeName !== undefined,
      poles: undefined,
    },
  ];
}

/** The poles of a device: the lines, and the neutral where it has one more. Of no stated type the neutral is taken to pass through it. */
function polesOf({ figures }: LineDevice, names: readonly TerminalName[]): ReadonlySet<TerminalName> {
  const lines = names.filter((name) => name !== 'N' && name !== 'PE');
  const isNeutral = figures === undefined || figures.poles > lines.length;
  return new Set(isNeutral ? [...lines, 'N'] : lines);
}

const SIDES = ['in', 'out'] as const;

/** Both sides of a device that somebody has stated; the device of a circuit by its load side, and where its type states terminals. */
function placesAtDevice(device: LineDevice, line: CableLine, parts: PartsById): Place[] {
  const { ports, takes, label, figures } = device;
  const poles = polesOf(device, line.names);
  const hasType = figures !== undefined;
  if (line.circuit !== undefined)
    return takes.known
      ? [
          {
            partId: line.ends[0].partId,
            label,
            portLabel: 'load side',
            placeId: `${line.id} device`,
            takes,
            hasType,
            poles,
          },
        ]
      : [];
  return ports.slice(0, SIDES.length).flatMap((port, at): Place[] => {
    const fitted = parts.get(port.partId)?.fitted;
    if (fitted?.known !== true || fitted.value !== 'yes') return [];
    const portLabel = SIDES[at] ?? port.label;
    return [{ partId: port.partId, label, portLabel, placeId: port.id, takes: port.takes, hasType, poles }];
  });
}

function landingsOf(installation: Installation, lines: readonly CableLine[], parts: PartsById): Landing[] {
  return lines.flatMap((line) => {
    const line_ = plannedMm2(installation, line);
    const earth = line.names.includes('PE') ? conductorMm2(installation, line, 'PE') : undefined;
    const places = [
      ...line.ends.flatMap((end) => placeAtEnd(end, parts)),
      ...line.devices.flatMap((device) => placesAtDevice(device, line, parts)),
    ];
    return places.flatMap((place) =>
      line.names
        .filter((name) => place.poles?.has(name) !== false)
        .map((name) => ({
          line,
          place,
          name,
          areaMm2: name === 'PE' && line.use !== 'earth' ? earth : line_,
        })),
    );
  });
}

/** What takes a conductor: the earth may have a terminal of another range and torque than the lines. */
const rowFor = (row: TerminalRow, name: TerminalName): TerminalRow => {
  if (name !== 'PE' || row.earthMinMm2 === undefined || row.earthMaxMm2 === undefined) return row;
  const { earthMinMm2: minMm2, earthMaxMm2: maxMm2, earthTorqueNm: torqueNm } = row;
  return { ...row, minMm2, maxMm2, ...(torqueNm === undefined ? {} : { torqueNm }) };
};

const terminalOf = ({ place, name }: Landing): string => `${place.placeId} ${name}`;

function fitNotes(row: TerminalRow, areaMm2: number | undefined, together: number): string[] {
  return [
    ...(areaMm2 !== undefined && areaMm2 > row.maxMm2 * 1.02
      ? [`too thick: it takes ${thickestWords(namedIn(areaMm2), row.maxMm2)} at most`]
      : []),
    ...(areaMm2 !== undefined && areaMm2 * 1.02 < row.minMm2
      ? [`too thin: it takes ${thinnestWords(namedIn(areaMm2), row.minMm2)} at least`]
      : []),
    ...(row.mostConductors !== undefined && together > row.mostConductors
      ? [`${together} conductors, and it takes ${row.mostConductors}`]
      : []),
  ];
}

function adviceNotes(row: TerminalRow, name: TerminalName): string[] {
  return [
    ...(row.earthFirst === 'yes' ? [name === 'PE' ? 'land this one first' : 'after the earth'] : []),
    ...(row.ferrite === 'yes' ? ['ferrite core over the conductors'] : []),
    ...(row.coverTorqueNm === undefined ? [] : [`cover back on with ${row.coverTorqueNm} Nm`]),
  ];
}

const NOT_STATED = 'its type states nothing of this terminal: read it off the thing and type it here';
const NOT_READ = 'nothing is known of this terminal: read it off the thing and type it here';

/** The end to make; of a size that is not known only where the terminal takes no other. */
function endOf(
  ends: readonly EndKind[],
  areaMm2: number | undefined,
  isFlexible: boolean,
): EndKind | undefined {
  if (areaMm2 !== undefined) return endFor(ends, areaMm2, isFlexible);
  return ends.length === 1 ? ends[0] : undefined;
}

/** What an end is called; a plug by the polarity that it stands for. */
function endWords(end: EndKind, name: TerminalName): string {
  if (end === 'pin') return 'pin contact';
  if (end !== 'plug') return end;
  return name === 'DC+' ? 'plug of +' : name === 'DC−' ? 'plug of −' : `plug of ${name}`;
}

function endNotes(end: EndKind | undefined): string[] {
  return [
    ...(end === 'plug' ? ['only with a counterpart of the same make and kind'] : []),
    ...(isClicked(end) ? ['push until it clicks, then tug by hand'] : []),
  ];
}

function rowOf(
  landing: Landing,
  together: readonly Landing[],
  deadFirst: string,
  ticks: ReadonlyMap<string, DeliveryTick>,
): Row<Key> {
  const { line, place, name, areaMm2 } = landing;
  const row = place.takes.known ? rowFor(place.takes.value, name) : undefined;
  const made = row?.ends && endOf(row.ends, areaMm2, line.use === 'battery');
  const wrong = row === undefined ? [] : fitNotes(row, areaMm2, together.length);
  const others = together.filter((one) => one !== landing);
  const state: RowState =
    wrong.length > 0
      ? 'over'
      : areaMm2 === undefined ||
          made === undefined ||
          (row?.torqueNm === undefined && !isClicked(made)) ||
          row?.stripMm === undefined
        ? 'unknown'
        : 'within';
  const id = `${line.id} ${place.placeId} ${name}`;
  return {
    id,
    partIds: [place.partId],
    ...(line.circuit === undefined ? { portId: place.placeId } : {}),
    state,
    cells: {
      part: place.label,
      port: place.portLabel,
      terminal: name,
      cable: line.label,
      size: areaMm2 === undefined ? null : leadSizeWords(areaMm2),
      order: row?.earthFirst === 'yes' ? (name === 'PE' ? 1 : 2) : '',
      end: made === undefined ? null : endWords(made, name),
      strip: row?.stripMm ?? null,
      torque: isClicked(made) ? '' : (row?.torqueNm ?? null),
      tool: made === undefined ? null : toolFor(made, areaMm2),
      pull: isClicked(made) ? '' : areaMm2 === undefined ? null : (pullN(areaMm2) ?? null),
      shared:
        others.length === 0
          ? 'alone'
          : `with ${others.length === 1 ? (others[0]?.line.label ?? '') : `${others.length} others`}`,
      dead: deadFirst,
      note: [
        ...wrong,
        ...(row === undefined ? [place.hasType ? NOT_STATED : NOT_READ] : adviceNotes(row, name)),
        ...endNotes(made),
      ].join('; '),
      landed: landedWords(ticks.get(landingId(id))),
    },
  };
}

/** What a type tells of first, and by part within that. */
const byPart = (a: Row<Key>, b: Row<Key>): number =>
  Number(a.state === 'unknown') - Number(b.state === 'unknown') ||
  String(a.cells.part).localeCompare(String(b.cells.part), 'en', { numeric: true });

/** What somebody has noted of a termination on site. */
const landedWords = (tick: DeliveryTick | undefined): string =>
  tick?.state === undefined
    ? ''
    : [
        tick.state === 'ready' ? 'landed' : 'to be made again',
        ...(tick.torqueNm === undefined ? [] : [`${tick.torqueNm} Nm`]),
        ...(tick.by === undefined ? [] : [tick.by]),
      ].join(', ');

/** The tick of a termination. */
export const landingId = (rowId: string): string => fieldId('t', rowId);

/** Every end of every conductor, by the part it lands in: end, strip length, torque, tool, and what must be dead first. */
export function terminationSchedule(
  installation: Installation,
  delivery: readonly DeliveryTick[] = [],
): Schedule<Key> {
  const ticks = new Map(delivery.map((tick) => [tick.id, tick]));
  const lines = cableLines(installation);
  const live = energisers(installation);
  const parts: PartsById = new Map(
    installation.network.known ? installation.network.value.parts.map((part) => [part.id, part]) : [],
  );
  const landings = lines.known ? landingsOf(installation, lines.value, parts) : [];
  const byTerminal = groupBy(landings, terminalOf);
  const deadFirst = ({ place, line }: Landing): string => {
    if (line.use === 'battery') return 'battery: open its device; the module itself stays live';
    if (line.use === 'pv') return 'PV string: open the DC switch, cover or wait for dark; live in daylight';
    if (line.use === 'control') return 'the inverter: its output for controls is live with it';
    // The load side of the device of a circuit is live from whatever feeds its board.
    const portId = line.circuit === undefined ? place.placeId : (line.ends[0].port?.id ?? '');
    const sources = live.known ? (live.value.get(portId) ?? []) : [];
    return sources.map((id) => parts.get(id)?.label ?? id).join(', ');
  };
  return {
    kind: 'terminations',
    title: 'Terminations',
    columns: COLUMNS,
    rows: landings
      .map((one) => rowOf(one, byTerminal.get(terminalOf(one)) ?? [one], deadFirst(one), ticks))
      .sort(byPart),
    notes: [
      'Prove dead with a proven tester, lock off, and follow the manual of the equipment where it says otherwise.',
      ...unstatedDevices(lines.known ? lines.value : [], parts),
      ...strayTerminals(installation),
    ],
  };
}

/** Devices of which nobody has said that they are there are left out, and that is told. */
function unstatedDevices(lines: readonly CableLine[], parts: PartsById): string[] {
  const count = new Set(
    lines.flatMap(({ devices }) =>
      devices.flatMap(({ ports: [port] }) =>
        port !== undefined && parts.get(port.partId)?.fitted?.known !== true ? [port.partId] : [],
      ),
    ),
  ).size;
  return count === 0
    ? []
    : [
        `Left out: the terminals of ${counted(count, 'device')} of which nobody has said whether ${count === 1 ? 'it is' : 'they are'} there.`,
      ];
}

/** What was read of terminals that are no longer there. */
function strayTerminals({ wiring, network }: Installation): string[] {
  if (!network.known) return [];
  const ids = new Set(network.value.ports.map(({ id }) => id));
  return (wiring?.terminals ?? [])
    .filter(({ portId }) => !ids.has(portId))
    .map(({ portId }) => `Something is stated of a terminal that is not there any more: ${portId}.`);
}
