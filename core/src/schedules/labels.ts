import { linkFigures } from '../figures/comms/linkFigures.ts';
import { LINK_WORDS } from '../figures/comms/linkWords.ts';
import type { Installation } from '../installation/installation.ts';
import { modesOf } from '../modes/modes.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import { readerOf, sensorMark } from './sensors.ts';
import { describePlaces } from '../words/places.ts';
import type { Column, Row, Schedule } from './table.ts';
import { type Label, type LabelKind, warningLabels } from './warningLabels.ts';

type Key = 'place' | 'kind' | 'text' | 'count' | 'missing';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'place', title: 'Where it goes' },
  { key: 'kind', title: 'Kind' },
  { key: 'text', title: 'Text' },
  { key: 'count', title: 'Pieces' },
  { key: 'missing', title: 'To be known first' },
];

/** Each switch that takes a source away carries its own label. */
const ISOLATES: ReadonlySet<string> = new Set([
  'service-main',
  'grid-isolator',
  'unit-grid',
  'unit-output',
  'generator-device',
  'battery-unit',
  'dc-switch',
]);

function isolationLabels({ network }: Installation): Label[] {
  if (!network.known) return [];
  return network.value.parts
    .filter(({ role }) => role !== undefined && ISOLATES.has(role))
    .filter(({ fitted }) => !(fitted?.known === true && fitted.value === 'none'))
    .map(({ id, label }) => ({
      place: label,
      partId: id,
      kind: 'isolation',
      text: `Isolation point: ${label}`,
    }));
}

function cableMarks(installation: Installation): Label[] {
  const lines = cableLines(installation);
  if (!lines.known) return [];
  return lines.value.map(({ label, ends }) => ({
    place: 'both ends of the cable',
    kind: 'mark',
    text: label,
    count: 2,
    ...(ends[0].port === undefined ? {} : { partId: ends[0].partId }),
  }));
}

/** Each sensor and the end of its leads: taken for its neighbour it looks at another line. */
function sensorMarks(installation: Installation): Label[] {
  return installation.instruments.flatMap((one): Label[] => {
    const text = sensorMark(one, readerOf(installation, one));
    const { id, name } = one.instrument;
    return text === null
      ? []
      : [
          {
            place: `${name ?? 'sensor'}, and the end of its leads`,
            kind: 'mark',
            text,
            count: 2,
            partId: `instrument ${id}`,
          },
        ];
  });
}

/** Kinds of parts whose ports look alike to whoever stands before them. */
const MARKED: ReadonlySet<string> = new Set(['inverter', 'transfer-device', 'controller']);

/** Each port that something is landed on: what leaves there is written beside it. */
function portMarks({ network }: Installation): Label[] {
  if (!network.known) return [];
  const { parts, ports, runs } = network.value;
  const used = new Set(runs.flatMap(({ a, b }) => [a, b]));
  const marked = new Map(parts.flatMap((part) => (MARKED.has(part.kind) ? [[part.id, part]] : [])));
  return ports.flatMap(({ id, partId, label }): Label[] => {
    const part = marked.get(partId);
    return part === undefined || !used.has(id)
      ? []
      : [{ place: `${label} of ${part.label}`, kind: 'mark', text: `${part.label}: ${label}`, partId }];
  });
}

/** Both ends of every cable of comms. */
function linkMarks(installation: Installation): Label[] {
  const figures = linkFigures(installation);
  if (!figures.known) return [];
  return figures.value.flatMap(({ link, ends: [a, b] }): Label[] =>
    link.by === 'radio'
      ? []
      : [
          {
            place: 'both ends of the cable',
            kind: 'mark',
            text: `${LINK_WORDS[link.kind]}: ${a?.label ?? link.a.partId} ${link.a.socket} to ${b?.label ?? link.b.partId} ${link.b.socket}`,
            count: 2,
            partId: link.a.partId,
          },
        ],
  );
}

function procedureLabels(installation: Installation): Label[] {
  const modes = modesOf(installation).filter(
    ({ kind }) => kind === 'generator-inlet' || kind === 'maintenance-bypass' || kind === 'transfer-switch',
  );
  return modes.map(({ label }) => ({
    place: `switch for: ${label}`,
    kind: 'information',
    text: `${label}: order of switching as in the procedure kept here. Never two sources together.`,
  }));
}

/** Every label with its place and text. Wording is a proposal: local rules may want their own. */
export function labelSchedule(installation: Installation): Schedule<Key> {
  const labels = [
    ...warningLabels(installation),
    ...isolationLabels(installation),
    ...procedureLabels(installation),
    ...portMarks(installation),
    ...sensorMarks(installation),
    ...cableMarks(installation),
    ...linkMarks(installation),
  ];
  return {
    kind: 'labels',
    title: 'Labels',
    columns: COLUMNS,
    rows: labels.map((label, at): Row<Key> => ({
      id: `label ${at + 1}`,
      partIds: label.partId === undefined ? [] : [label.partId],
      ...(label.missing === undefined ? {} : { state: 'unknown' as const }),
      cells: {
        place: label.place,
        kind: label.kind,
        text: label.text,
        count: label.count ?? 1,
        missing: label.missing === undefined ? '' : describePlaces(installation, label.missing),
      },
    })),
    notes: ['Local rules may want other words, colours and sizes.'],
  };
}

const KINDS: readonly LabelKind[] = ['warning', 'isolation', 'information', 'mark'];

/** A label as it goes onto a sheet. */
export interface SheetLabel {
  readonly kind: LabelKind;
  readonly text: string;
  readonly place: string;
  readonly count: number;
}

/** The labels of a schedule for a sheet, kind by kind. */
export const sheetLabels = ({ rows }: Schedule): SheetLabel[] =>
  KINDS.flatMap((kind) =>
    rows
      .filter(({ cells }) => cells.kind === kind)
      .map(({ cells }) => ({
        kind,
        text: String(cells.text),
        place: String(cells.place),
        count: typeof cells.count === 'number' ? cells.count : 1,
      })),
  );
