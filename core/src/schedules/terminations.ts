import type { TerminalRow } from '../catalogue/common.ts';
import type { DeliveryTick } from '../design/delivery.ts';
import { leadSizeWords } from '../codes/leadSizes.ts';
import { endFor, type EndKind, isClicked, pullN, toolFor } from '../codes/terminations.ts';
import type { CableLine, End } from '../figures/wiring/cableLine.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import type { Installation } from '../installation/installation.ts';
import type { TerminalName } from '../installation/network.ts';
import { energisers } from '../modes/energisers.ts';
import { sizeLine } from '../sizing/sizeLine.ts';
import { groupBy } from '../values/groupBy.ts';
import { fieldId } from './fieldId.ts';
import type { Column, Row, RowState, Schedule } from './table.ts';

type Key =
  | 'part'
  | 'port'
  | 'terminal'
  | 'cable'
  | 'size'
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

/** One end of one conductor. */
interface Landing {
  readonly line: CableLine;
  readonly end: End;
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

function landingsOf(installation: Installation, lines: readonly CableLine[]): Landing[] {
  return lines.flatMap((line) => {
    const line_ = plannedMm2(installation, line);
    const earth = line.names.includes('PE') ? conductorMm2(installation, line, 'PE') : undefined;
    return line.ends.flatMap((end) =>
      line.names.map((name) => ({
        line,
        end,
        name,
        areaMm2: name === 'PE' && line.use !== 'earth' ? earth : line_,
      })),
    );
  });
}

const terminalOf = ({ end, name }: Landing): string => `${end.port?.id ?? end.partId} ${name}`;

function fitNotes(row: TerminalRow, areaMm2: number | undefined, together: number): string[] {
  return [
    ...(areaMm2 !== undefined && areaMm2 > row.maxMm2 * 1.02
      ? [`too thick: it takes ${row.maxMm2} mm² at most`]
      : []),
    ...(areaMm2 !== undefined && areaMm2 * 1.02 < row.minMm2
      ? [`too thin: it takes ${row.minMm2} mm² at least`]
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
  const { line, end, name, areaMm2 } = landing;
  const takes = end.port?.takes;
  const row = takes?.known === true ? takes.value : undefined;
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
  const id = `${line.id} ${end.port?.id ?? end.partId} ${name}`;
  return {
    id,
    partIds: [end.partId],
    state,
    cells: {
      part: end.label,
      port: end.port?.label ?? '',
      terminal: name,
      cable: line.label,
      size: areaMm2 === undefined ? null : leadSizeWords(areaMm2),
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
        ...(row === undefined ? ['its type states nothing of this terminal'] : adviceNotes(row, name)),
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

/** Bars and boards of no type have no terminals that anybody could look up. */
const hasTerminals = ({ port }: End): boolean =>
  port !== undefined && (port.role !== 'bus' || port.takes.known);

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
  const labels = new Map(
    installation.network.known ? installation.network.value.parts.map(({ id, label }) => [id, label]) : [],
  );
  const landings = lines.known ? landingsOf(installation, lines.value) : [];
  const byTerminal = groupBy(landings, terminalOf);
  const deadFirst = ({ end, line }: Landing): string => {
    if (line.use === 'battery') return 'battery: open its device; the module itself stays live';
    if (line.use === 'pv') return 'PV string: open the DC switch, cover or wait for dark; live in daylight';
    if (line.use === 'control') return 'the inverter: its output for controls is live with it';
    const sources = live.known ? (live.value.get(end.port?.id ?? '') ?? []) : [];
    return sources.map((id) => labels.get(id) ?? id).join(', ');
  };
  return {
    kind: 'terminations',
    title: 'Terminations',
    columns: COLUMNS,
    rows: landings
      .filter(({ end }) => hasTerminals(end))
      .map((one) => rowOf(one, byTerminal.get(terminalOf(one)) ?? [one], deadFirst(one), ticks))
      .sort(byPart),
    notes: [
      'Prove dead with a proven tester, lock off, and follow the manual of the equipment where it says otherwise.',
    ],
  };
}
