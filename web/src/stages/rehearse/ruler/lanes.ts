import type { LinePickup, NightsSummary, Plant, Transfer } from '@bastion/core';
import type { Played } from '../playOutage.ts';
import { type Series, type Span, spansOf } from './series.ts';
import { AHEAD_S } from './timeScale.ts';

/** What of a set, and of its minutes, the lanes show. */
type Shown = Pick<Plant, 'ratedW' | 'nominalV' | 'mostDischargeW' | 'floorSoc' | 'boards' | 'generator'>;
type Minutes = Omit<Played, 'result' | 'events'>;

/** What is drawn under the ruler, one thing a lane. */
export type Lane = { readonly key: string; readonly title: string } & (
  | {
      readonly kind: 'figures';
      readonly unit: '%' | 'kW' | 'A' | 'Hz';
      /** Where the picture begins; at nought without it. */
      readonly least?: number;
      readonly most: number;
      readonly limit: { readonly label: string; readonly value: number } | undefined;
      readonly series: readonly Series[];
    }
  | {
      readonly kind: 'spans';
      readonly rows: readonly { readonly label: string; readonly spans: readonly Span[] }[];
    }
);

const INKS = [
  'var(--color-ink)',
  'var(--color-touch)',
  'var(--color-unknown)',
  'var(--color-within)',
] as const;
const DASHES = ['', '8 3', '2 3', '10 2 2 2'] as const;

const stepsSeries = (label: string, at: number, points: readonly (readonly [number, number])[]): Series => ({
  label,
  ink: INKS[at % INKS.length] ?? INKS[0],
  dash: DASHES[at % DASHES.length] ?? '',
  atS: Float64Array.from(points, ([seconds]) => seconds),
  values: Float64Array.from(points, ([, value]) => value),
});

const column = (label: string, ink: string, dash: string, values: Float64Array, scale: number): Series => ({
  label,
  ink,
  dash,
  // It ends with its last minute: a shorter run that is laid under another is told no further.
  atS: Float64Array.from({ length: values.length + 1 }, (_, minute) => minute * 60),
  values: Float64Array.from([...values.map((value) => value * scale), NaN]),
});

/** The first minute that begins after the first seconds. */
const firstMinute = (seconds: number): number => Math.max(1, Math.ceil(seconds / 60));

/** Minutes after the first seconds, each as a moment and a value. */
function minutesAfter(
  seconds: number,
  minutes: number,
  valueOf: (minute: number) => number,
): [number, number][] {
  const first = firstMinute(seconds);
  return Array.from({ length: Math.max(0, minutes - first) }, (_, at): [number, number] => [
    (first + at) * 60,
    valueOf(first + at),
  ]);
}

/**
 * Voltage of a line in percent: of the grid, none in the gap, as the pickup leaves it, then by the minutes. After a trip of the set none,
 * and from the first minute on nothing is told: the minutes suppose that somebody has taken load off and reset it.
 */
function voltageOf(pickup: LinePickup, gapS: number, played: Minutes, at: number, tripsAtS: number): Series {
  const { steps } = pickup;
  const last = steps.at(-1)?.toS ?? gapS;
  const live: [number, number][] =
    steps.length === 0
      ? [[gapS, 100]]
      : steps.map(({ fromS, voltage }): [number, number] => [fromS, voltage * 100]);
  const minutes = minutesAfter(last, played.soc.length, (minute) =>
    (played.live[minute] ?? 0) > 0 ? 100 : 0,
  );
  const all: [number, number][] = [[-AHEAD_S, 100], [0, 0], ...live, [last, 100], ...minutes];
  const kept = all.filter(([seconds]) => seconds < tripsAtS);
  return stepsSeries(
    pickup.line,
    at,
    tripsAtS === Infinity ? kept : [...kept, [tripsAtS, 0], [firstMinute(last) * 60, NaN]],
  );
}

/** What a line is asked for, in percent of what it carries for long: in the first seconds, then by the minutes. */
function loadOf(pickup: LinePickup, gapS: number, at: number, played: Minutes, lastS: number): Series {
  const share = (va: number): number => (pickup.ratedVa > 0 ? (va / pickup.ratedVa) * 100 : 0);
  const last = pickup.steps.at(-1)?.toS ?? gapS;
  const shares = played.lineShare[at];
  return stepsSeries(pickup.line, at, [
    [0, 0],
    ...pickup.steps.map(({ fromS, va }): [number, number] => [fromS, share(va)]),
    [last, share(pickup.runningVa)],
    ...(shares === undefined
      ? [[firstMinute(last) * 60, NaN] as const]
      : minutesAfter(lastS, played.soc.length, (minute) => (shares[minute] ?? 0) * 100)),
  ]);
}

const mostOf = (series: readonly Series[], least: number): number =>
  series.reduce(
    (most, { values }) => values.reduce((top, value) => (value > top ? value : top), most),
    least,
  );

function firstSeconds(transfer: Transfer, played: Minutes): Lane[] {
  const gapS = transfer.gapMs / 1000;
  // The first line whose overload curve is used up takes the whole set off.
  const tripsAtS = Math.min(...transfer.lines.map((pickup) => pickup.tripsAtS ?? Infinity));
  const lastS = Math.max(gapS, ...transfer.lines.map(({ steps }) => steps.at(-1)?.toS ?? gapS));
  const loads = transfer.lines.map((pickup, at) => loadOf(pickup, gapS, at, played, lastS));
  return [
    {
      key: 'voltage',
      title: 'Line voltage',
      kind: 'figures',
      unit: '%',
      most: 110,
      limit: undefined,
      series: transfer.lines.map((pickup, at) => voltageOf(pickup, gapS, played, at, tripsAtS)),
    },
    {
      key: 'load',
      title: 'Line load, of what it carries for long',
      kind: 'figures',
      unit: '%',
      most: mostOf(loads, 110),
      limit: { label: 'for long', value: 100 },
      series: loads,
    },
  ];
}

/** Lanes of one rehearsal: the first seconds where they are known, then its minutes; a kept run is laid under it. */
export function lanesOf(
  plant: Shown,
  transfer: Transfer | undefined,
  played: Minutes,
  kept: Minutes | undefined,
): readonly Lane[] {
  const { soc, wantedW, servedW, sunW, generatorW, batteryW, boards } = played;
  const power: Series[] = [
    column('wanted', 'var(--color-quiet)', '3 3', wantedW, 1e-3),
    column('served', 'var(--color-ink)', '', servedW, 1e-3),
    ...(sunW.some((watts) => watts > 0) ? [column('sun', 'var(--color-tight)', '8 3', sunW, 1e-3)] : []),
    ...(plant.generator === undefined
      ? []
      : [column('generator', 'var(--color-touch)', '2 2 8 2', generatorW, 1e-3)]),
    ...(kept === undefined
      ? []
      : [column('served, kept run', 'var(--color-unknown)', '10 2 2 2', kept.servedW, 1e-3)]),
  ];
  const outOf: Series[] = [
    column(
      'out',
      'var(--color-ink)',
      '',
      batteryW.map((watts) => Math.max(0, watts)),
      1 / plant.nominalV,
    ),
    column(
      'in',
      'var(--color-within)',
      '8 3',
      batteryW.map((watts) => Math.max(0, -watts)),
      1 / plant.nominalV,
    ),
  ];
  const mostA = plant.mostDischargeW / plant.nominalV;
  return [
    ...(transfer === undefined ? [] : firstSeconds(transfer, played)),
    {
      key: 'power',
      title: 'Power',
      kind: 'figures',
      unit: 'kW',
      most: mostOf(power, 0.1) * 1.05,
      limit: undefined,
      series: power,
    },
    {
      key: 'soc',
      title: 'State of charge',
      kind: 'figures',
      unit: '%',
      most: 100,
      limit: { label: 'discharge ends', value: plant.floorSoc * 100 },
      series: [
        column('state of charge', 'var(--color-within)', '', soc, 100),
        ...(kept === undefined
          ? []
          : [column('kept run', 'var(--color-unknown)', '10 2 2 2', kept.soc, 100)]),
      ],
    },
    {
      key: 'current',
      title: 'Battery current, at nominal voltage',
      kind: 'figures',
      unit: 'A',
      most: Math.max(mostA * 1.1, mostOf(outOf, 1)),
      limit: { label: 'most', value: mostA },
      series: outOf,
    },
    {
      key: 'sources',
      title: 'Sources',
      kind: 'spans',
      rows: [
        { label: 'grid', spans: [{ fromS: -AHEAD_S, toS: 0 }] },
        { label: 'battery', spans: spansOf(soc.length, (minute) => (batteryW[minute] ?? 0) > 0) },
        ...(power.some(({ label }) => label === 'sun')
          ? [{ label: 'sun', spans: spansOf(soc.length, (minute) => (sunW[minute] ?? 0) > 0) }]
          : []),
        ...(plant.generator === undefined
          ? []
          : [{ label: 'generator', spans: spansOf(soc.length, (minute) => (generatorW[minute] ?? 0) > 0) }]),
      ],
    },
    {
      key: 'boards',
      title: 'Boards served',
      kind: 'spans',
      rows: plant.boards.map(({ name }, board) => ({
        label: name,
        spans: spansOf(soc.length, (minute) => ((boards[minute] ?? 0) & (1 << board)) !== 0),
      })),
    },
  ];
}

/** How long the set lasts in many nights that were played. */
export const nightsLane = ({ lastedH }: NightsSummary): Lane => ({
  key: 'nights',
  title: 'Many nights last so long',
  kind: 'spans',
  rows: (
    [
      ['in the middle', lastedH.middle],
      ['in the worst 5 of 100', lastedH.worst5],
      ['in the worst 1 of 100', lastedH.worst1],
    ] as const
  ).map(([label, hours]) => ({ label, spans: [{ fromS: 0, toS: hours * 3600 }] })),
});

/** Frequencies that the picture spans either way of nominal. */
const HZ_AROUND = 4;

/**
 * Frequency: nominal of the grid, none in the gap, held by the inverters, and of a generator f = f_n · (1 + droop · (1 − P / P_most)), of which
 * nothing is told where its type states no droop.
 */
export function frequencyLane(
  { generator }: Shown,
  transfer: Transfer | undefined,
  { generatorW }: Minutes,
  nominalHz: number,
): Lane {
  const ofGenerator = (watts: number): number =>
    generator?.droop === undefined ? NaN : nominalHz * (1 + generator.droop * (1 - watts / generator.mostW));
  const gapS = (transfer?.gapMs ?? 0) / 1000;
  const minutes = Array.from(generatorW, (watts, minute): [number, number] => [
    minute * 60,
    watts > 0 ? ofGenerator(watts) : nominalHz,
  ]);
  return {
    key: 'frequency',
    title: 'Frequency',
    kind: 'figures',
    unit: 'Hz',
    least: nominalHz - HZ_AROUND,
    most: nominalHz + HZ_AROUND,
    limit: undefined,
    series: [
      stepsSeries('set', 0, [
        [-AHEAD_S, nominalHz],
        [0, NaN],
        [gapS, minutes[0]?.[1] ?? nominalHz],
        ...minutes.filter(([seconds]) => seconds > gapS),
      ]),
    ],
  };
}
