import type { MeterType } from '../catalogue/partTypes.ts';
import type { CompiledInstrument, Installation } from '../installation/installation.ts';
import type { Line } from '../values/quantities.ts';
import type { Column, Row, Schedule } from './table.ts';

type Key =
  | 'what'
  | 'type'
  | 'place'
  | 'line'
  | 'arrow'
  | 'label'
  | 'setting'
  | 'rating'
  | 'opening'
  | 'supply'
  | 'terminals'
  | 'mark'
  | 'reader'
  | 'prove';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'what', title: 'Meter or sensor' },
  { key: 'type', title: 'Type' },
  { key: 'place', title: 'Place' },
  { key: 'line', title: 'Line' },
  { key: 'arrow', title: 'Arrow' },
  { key: 'label', title: 'Ratio on label' },
  { key: 'setting', title: 'Ratio in settings' },
  { key: 'rating', title: 'Rated', unit: 'A' },
  { key: 'opening', title: 'Opening', unit: 'mm' },
  { key: 'supply', title: 'Supply' },
  { key: 'terminals', title: 'Terminals' },
  { key: 'mark', title: 'Mark to put on it' },
  { key: 'reader', title: 'Read by' },
  { key: 'prove', title: 'How to prove it' },
];

export const PLACE_WORDS = {
  service: 'at the service, ahead of everything',
  'grid-port': 'at the grid port',
  'backed-up-board': 'at the backed-up board',
  generator: 'at the generator',
  array: 'at the array',
} as const;

const ARROW_WORDS = { 'to-building': 'to the building', 'to-source': 'to the grid or inverter' } as const;

const PROVE =
  'Switch a known load on that line on: the import there rises by that amount, and on no other line.';

/** What a meter is fed and shown the voltage by; null while its type does not say. */
function supplyWords({ supplyVa, supplyDeviceA, directA }: MeterType): string | null {
  if (typeof supplyVa === 'number')
    return `a cable of its own, ${supplyVa} VA${supplyDeviceA === undefined ? '' : `, behind ${supplyDeviceA} A at most`}`;
  if (directA !== undefined) return 'through the meter itself';
  return supplyVa === 'none' ? 'by what reads it' : null;
}

/** Where each conductor of a meter goes, as it is marked there; null while its type does not say. */
function terminalWords({ marks, lines }: MeterType, supply: readonly Line[]): string | null {
  if (marks === undefined) return null;
  const here = new Set<string>(supply.slice(0, lines));
  return marks
    .map(({ takes, mark }) => {
      const [first = '', second] = takes.split('-');
      const line = first === 'sensor' ? (second ?? '') : first;
      const kind = first === 'sensor' ? 'sensor ' : '';
      const way = second === 'out' ? ' out' : '';
      return { line, words: `${kind}${line}${way} at ${mark}` };
    })
    .filter(({ line }) => !/^L\d$/u.test(line) || here.has(line))
    .map(({ words }) => words)
    .join(', ');
}

/** What is written on a sensor and on the end of its leads; null while line or type is not known. */
export function sensorMark({ instrument, type }: CompiledInstrument, reader: string | null): string | null {
  if (!type.known || type.value.kind !== 'sensor' || instrument.line === undefined) return null;
  const { arrow, ratio } = type.value;
  return `${instrument.line}, arrow ${ARROW_WORDS[arrow]}, ${ratio}${reader === null ? '' : `, read by ${reader}`}`;
}

/** What reads a meter or sensor, in words. */
export function readerOf(installation: Installation, { instrument }: CompiledInstrument): string | null {
  const compiled = installation.stacks.find(({ stack }) => stack.id === instrument.readBy);
  const unit = compiled?.stack.units.findIndex(({ id }) => id === instrument.readByUnitId) ?? -1;
  const meter = installation.instruments.find((one) => one.instrument.id === instrument.meterId);
  if (meter !== undefined) return meter.instrument.name ?? 'the meter';
  if (compiled === undefined) return null;
  return unit < 0 ? compiled.stack.name : `unit ${unit + 1} of ${compiled.stack.name}`;
}

const linesOf = ({ supply }: Installation): readonly Line[] => (supply.known ? supply.value.lines : []);

function ownRow(installation: Installation, one: CompiledInstrument): Row<Key> {
  const { instrument, type } = one;
  const of = type.known ? type.value : undefined;
  const sensor = of?.kind === 'sensor' ? of : undefined;
  const reader = readerOf(installation, one);
  const wrong =
    (sensor !== undefined && instrument.arrow !== undefined && sensor.arrow !== instrument.arrow) ||
    (sensor !== undefined && instrument.ratio !== undefined && sensor.ratio !== instrument.ratio) ||
    instrument.at === 'backed-up-board' ||
    instrument.at === 'grid-port';
  const path = ['instruments', instrument.id];
  return {
    id: `instrument ${instrument.id}`,
    partIds: [`instrument ${instrument.id}`],
    state: wrong ? 'over' : of === undefined || instrument.at === undefined ? 'unknown' : 'within',
    fields: {
      place: [...path, 'at'],
      line: [...path, 'line'],
      arrow: [...path, 'arrow'],
      setting: [...path, 'ratio'],
    },
    cells: {
      what: instrument.name ?? instrument.kind,
      type: of?.name ?? null,
      place: instrument.at === undefined ? null : PLACE_WORDS[instrument.at],
      line: instrument.line ?? (instrument.kind === 'meter' ? 'all' : null),
      arrow:
        sensor === undefined
          ? ''
          : `${ARROW_WORDS[sensor.arrow]}${instrument.arrow === undefined ? '' : `; fitted ${ARROW_WORDS[instrument.arrow]}`}`,
      label: sensor?.ratio ?? '',
      setting: instrument.ratio ?? (instrument.kind === 'sensor' ? null : ''),
      rating: sensor?.ratedA ?? (of?.kind === 'meter' ? (of.directA ?? null) : null),
      supply: of?.kind === 'meter' ? supplyWords(of) : of === undefined ? null : '',
      opening: sensor?.openingMm ?? (sensor === undefined ? '' : null),
      terminals:
        of?.kind === 'meter'
          ? terminalWords(of, linesOf(installation))
          : of === undefined
            ? null
            : 'its own leads',
      mark: instrument.kind === 'sensor' ? sensorMark(one, reader) : '',
      reader,
      prove: PROVE,
    },
  };
}

const ROLE_PLACES = {
  grid: 'at the service, ahead of everything',
  generation: 'at the AC side of the array',
  load: 'ahead of the loads',
} as const;

/** Every meter and sensor: where it looks, which way its arrow points, what its settings say. */
export function sensorSchedule(installation: Installation): Schedule<Key> {
  const ofControllers = installation.controllers.flatMap(({ controller, meterTypes }) =>
    controller.meters.map((meter): Row<Key> => {
      const type = meterTypes[meter.id];
      const of = type?.known === true ? type.value : undefined;
      return {
        id: `meter ${controller.id}/${meter.id}`,
        partIds: [`meter ${controller.id}/${meter.id}`],
        state: of === undefined ? 'unknown' : 'within',
        cells: {
          what: `${meter.role} meter${meter.address === undefined ? '' : `, address ${meter.address}`}`,
          type: of?.name ?? null,
          place: ROLE_PLACES[meter.role],
          line: of === undefined ? null : of.lines === 1 ? 'its own' : 'all',
          arrow: '',
          label: '',
          setting: '',
          rating: of?.directA ?? null,
          opening: '',
          supply: of === undefined ? null : supplyWords(of),
          terminals: of === undefined ? null : terminalWords(of, linesOf(installation)),
          mark: `${meter.role}${meter.address === undefined ? '' : `, address ${meter.address}`}`,
          reader: controller.name,
          prove: PROVE,
        },
      };
    }),
  );
  const rows = [...installation.instruments.map((one) => ownRow(installation, one)), ...ofControllers];
  const isOff = installation.site.grid === 'none';
  return {
    kind: 'sensors',
    title: 'Meters and sensors',
    columns: COLUMNS,
    rows,
    notes:
      rows.length > 0
        ? []
        : [
            installation.site.instruments === 'not-needed'
              ? 'Not needed, as somebody has decided: nothing of the grid is read.'
              : isOff
                ? 'Not needed: the site has no grid to look at.'
                : 'None is listed, and nobody has said that none is needed: meters and sensors are added in Wiring.',
          ],
  };
}
