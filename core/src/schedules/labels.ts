import type { Installation } from '../installation/installation.ts';
import { modesOf } from '../modes/modes.ts';
import { bankOfSet } from '../figures/bank/ofSet.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import { formatNumber } from '../words/quantity.ts';
import { readerOf, sensorMark } from './sensors.ts';
import type { Column, Row, Schedule } from './table.ts';

type Key = 'place' | 'kind' | 'text' | 'count';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'place', title: 'Where it goes' },
  { key: 'kind', title: 'Kind' },
  { key: 'text', title: 'Text' },
  { key: 'count', title: 'Pieces' },
];

export type LabelKind = 'warning' | 'isolation' | 'information' | 'mark';

interface Label {
  readonly place: string;
  readonly kind: LabelKind;
  readonly text: string;
  readonly partId?: string;
  readonly count?: number;
}

function sourcesLabel(installation: Installation): Label[] {
  const { site, generators, arrays, stacks } = installation;
  const sources = [
    ...(site.grid === 'none' ? [] : ['the grid']),
    ...(stacks.length > 0 ? ['a battery with inverters'] : []),
    ...(generators.length > 0 ? ['a generator'] : []),
    ...(arrays.length > 0 ? ['solar panels'] : []),
  ];
  if (sources.length < 2) return [];
  return [
    {
      place: 'service board and meter',
      kind: 'warning',
      text: `More than one source: ${sources.join(', ')}. Isolate all of them before work.`,
    },
  ];
}

function boardLabels({ partitions }: Installation): Label[] {
  return partitions
    .filter(({ kind }) => kind !== 'grid')
    .map(({ id, name, kind }) => ({
      place: name,
      partId: `board ${id}`,
      kind: 'warning',
      text:
        kind === 'generator-only'
          ? 'Live from a generator while the grid is away.'
          : kind === 'locked-out'
            ? 'Fed through the inverters; held off while the grid is away.'
            : 'Backed up: stays live while the grid is away.',
    }));
}

function batteryLabels(installation: Installation): Label[] {
  return installation.stacks.flatMap((compiled): Label[] => {
    const bank = bankOfSet(compiled);
    if (!bank.known || bank.value === 'none') return [];
    const { maxV, moduleCount } = bank.value;
    return [
      {
        place: `battery of ${compiled.stack.name}`,
        partId: `bar ${compiled.stack.id}`,
        kind: 'warning',
        text: `Battery, direct current, up to ${formatNumber(maxV)} V. Cannot be switched off inside. No flames, no metal tools or jewellery.`,
      },
      ...Array.from({ length: moduleCount }, (_, at): Label => ({
        place: `module ${at + 1} of ${compiled.stack.name}`,
        kind: 'mark',
        text: `Module ${at + 1} of ${compiled.stack.name}: plus and minus at both ends of its lead`,
        count: 2,
      })),
    ];
  });
}

function arrayLabels({ arrays }: Installation): Label[] {
  return arrays.flatMap(({ array }): Label[] =>
    array.coupling === 'ac'
      ? [
          {
            place: array.name,
            partId: `array ${array.id}`,
            kind: 'warning',
            text: 'Solar supply on the AC side. Isolate here as well.',
          },
        ]
      : (array.places ?? []).map((place) => ({
          place: `string of ${array.name} at its input ${place.input}`,
          partId: `array ${array.id}`,
          kind: 'warning',
          text: 'Solar direct current: live in daylight, also when all is switched off.',
        })),
  );
}

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
    ...sourcesLabel(installation),
    ...boardLabels(installation),
    ...batteryLabels(installation),
    ...arrayLabels(installation),
    ...isolationLabels(installation),
    ...procedureLabels(installation),
    ...sensorMarks(installation),
    ...cableMarks(installation),
  ];
  return {
    kind: 'labels',
    title: 'Labels',
    columns: COLUMNS,
    rows: labels.map((label, at): Row<Key> => ({
      id: `label ${at + 1}`,
      partIds: label.partId === undefined ? [] : [label.partId],
      cells: { place: label.place, kind: label.kind, text: label.text, count: label.count ?? 1 },
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
