import { type CableLine, isIsolator, type LineDevice } from '../figures/wiring/cableLine.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import { circuitFaults } from '../figures/protection/faultProtection.ts';
import { faultsAtDevice } from '../figures/protection/placeFaults.ts';
import type { Circuit } from '../installation/facts.ts';
import type { Installation } from '../installation/installation.ts';
import type { Part } from '../installation/network.ts';
import { type SizedLine, sizeLine } from '../sizing/sizeLine.ts';
import { formatNumber } from '../words/quantity.ts';
import { overridesOf } from './overrides.ts';
import type { Cell, Column, Row, RowState, Schedule } from './table.ts';

type Key =
  | 'device'
  | 'in'
  | 'kind'
  | 'rating'
  | 'planned'
  | 'load'
  | 'voltage'
  | 'breaking'
  | 'fault'
  | 'trip'
  | 'stands'
  | 'verdict'
  | 'override';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'device', title: 'Device' },
  { key: 'in', title: 'In the cable' },
  { key: 'kind', title: 'Kind' },
  { key: 'rating', title: 'Rated', unit: 'A' },
  { key: 'planned', title: 'Next standard', unit: 'A' },
  { key: 'load', title: 'Load', unit: 'A' },
  { key: 'voltage', title: 'Rated', unit: 'V' },
  { key: 'breaking', title: 'Opens', unit: 'A' },
  { key: 'fault', title: 'Fault there', unit: 'A' },
  { key: 'trip', title: 'Opens at once on a fault at the far end' },
  { key: 'stands', title: 'State' },
  { key: 'verdict', title: 'Verdict' },
  { key: 'override', title: 'Overridden' },
];

/** The most that any source can drive into a fault at a device; null while that of one of them is not known. */
function faultAt(installation: Installation, line: CableLine, device: LineDevice): Cell {
  const found = faultsAtDevice(installation, line, device);
  if (found.length === 0 || found.some(({ currentA }) => !currentA.known)) return null;
  return Math.round(Math.max(...found.map(({ currentA }) => (currentA.known ? currentA.value : 0))));
}

const SOURCE_WORDS = { grid: 'grid', island: 'island', generator: 'generator' } as const;

/** Whether the release of a circuit's device opens, by what feeds the fault. */
const tripWords = (installation: Installation, circuit: Circuit): string =>
  circuitFaults(installation, circuit)
    .map(({ source, answer }) => {
      if (!answer.known) return `${SOURCE_WORDS[source]}: not known`;
      const { trip, currentA, lastsMs } = answer.value;
      const lasts = lastsMs === undefined ? '' : ` for ${formatNumber(lastsMs)} ms`;
      return `${SOURCE_WORDS[source]}: ${trip}, ${formatNumber(currentA)} A${lasts}`;
    })
    .join('; ');

interface Judged {
  readonly state: RowState;
  readonly verdict: string;
}

/** What cannot be judged of a device for want of a figure; a string's fault is limited by the sun, that of an output for controls by the inverter. */
function openQuestions(
  { use }: CableLine,
  { figures }: LineDevice,
  isSized: boolean,
  faultA: Cell,
): string[] {
  const isLimited = use === 'pv' || use === 'control' || isIsolator(figures);
  const breakingA = figures?.breakingA;
  return [
    ...(isSized ? [] : ['what its cable carries is not known']),
    ...(isLimited ? [] : breakingA === undefined ? ['its breaking capacity is not known'] : []),
    ...(isLimited || typeof faultA === 'number' ? [] : ['what can flow into a fault there is not known']),
  ];
}

function judged(line: CableLine, device: LineDevice, sized: SizedLine | undefined, faultA: Cell): Judged {
  const breakingA = device.figures?.breakingA;
  if (!device.ratedA.known) return { state: 'unknown', verdict: 'its rating is not known' };
  const { value: ratedA } = device.ratedA;
  if (breakingA !== undefined && typeof faultA === 'number' && breakingA < faultA)
    return {
      state: 'over',
      verdict: `opens ${formatNumber(breakingA)} A, and ${formatNumber(faultA)} A can flow`,
    };
  const worst = sized?.chosen?.answers.find(
    ({ test, state }) => state === 'over' && ['device', 'overload', 'small-conductor'].includes(test),
  );
  if (worst !== undefined && !isIsolator(device.figures))
    return { state: 'over', verdict: `larger than its conductor allows: ${worst.working()}` };
  if (sized !== undefined && sized.plannedDeviceA !== undefined && ratedA < sized.carried.currentA)
    return { state: 'over', verdict: `smaller than its load of ${formatNumber(sized.carried.currentA)} A` };
  const open = openQuestions(line, device, sized !== undefined, faultA);
  return open.length === 0
    ? { state: 'within', verdict: 'within' }
    : { state: 'unknown', verdict: open.join('; ') };
}

function rowsOf(
  installation: Installation,
  line: CableLine,
  devices: readonly LineDevice[],
  parts: ReadonlyMap<string, Part>,
): Row<Key>[] {
  if (devices.length === 0) return [];
  const found = sizeLine(installation, line);
  const sized = found?.known === true ? found.value : undefined;
  return devices.map((device): Row<Key> => {
    const part = parts.get(device.partId ?? '');
    const { figures } = device;
    const faultA = faultAt(installation, line, device);
    const { state, verdict } = judged(line, device, sized, faultA);
    return {
      id: `${line.id} ${device.label}`,
      partIds: device.partId === undefined ? line.ends.map(({ partId }) => partId) : [device.partId],
      state,
      fields: { rating: [...device.path, 'ratedA'] },
      cells: {
        device: device.label,
        in: line.label,
        kind: [
          figures?.device.replace('-', ' '),
          device.curve === undefined ? undefined : `curve ${device.curve}`,
          part?.typeName,
        ]
          .filter((one) => one !== undefined)
          .join(', '),
        rating: device.ratedA.known ? device.ratedA.value : null,
        planned: sized?.plannedDeviceA ?? null,
        load: sized === undefined ? null : Number(sized.carried.currentA.toFixed(1)),
        voltage: figures?.ratedV ?? null,
        breaking: isIsolator(figures) ? '' : (figures?.breakingA ?? null),
        fault: faultA,
        trip: line.circuit === undefined ? '' : tripWords(installation, line.circuit),
        stands:
          part?.fitted?.known === true
            ? 'stated'
            : device.partId === undefined
              ? 'stated'
              : 'not stated whether it is there',
        verdict,
        override: overridesOf(installation).get(device.partId ?? line.id) ?? '',
      },
    };
  });
}

/** The devices of each cable; one that several cables end at with the first of them, which feeds it. */
function listed(lines: readonly CableLine[]): { line: CableLine; devices: readonly LineDevice[] }[] {
  const seen = new Set<string>();
  return lines.map((line) => ({
    line,
    devices: [
      ...line.devices,
      ...line.endDevices.filter(({ partId }) => {
        if (partId === undefined || seen.has(partId)) return false;
        seen.add(partId);
        return true;
      }),
    ],
  }));
}

/** Every device in a cable or at its end: its rating against load and conductor, its breaking capacity against what can flow there. */
export function deviceSchedule(installation: Installation): Schedule<Key> {
  const lines = cableLines(installation);
  const parts = new Map(
    installation.network.known ? installation.network.value.parts.map((part) => [part.id, part]) : [],
  );
  return {
    kind: 'devices',
    title: 'Devices',
    columns: COLUMNS,
    rows: lines.known
      ? listed(lines.value).flatMap(({ line, devices }) => rowsOf(installation, line, devices, parts))
      : [],
    notes: [],
  };
}
