import type { ProtectiveDeviceType } from '../partTypes.ts';

type Terminal = NonNullable<ProtectiveDeviceType['terminals']>[number];

/** Up to a rating: what the screws of a sample take, mm², and how tight they go, Nm. */
const SCREWS: readonly { readonly toA: number; readonly maxMm2: number; readonly torqueNm: number }[] = [
  { toA: 63, maxMm2: 35, torqueNm: 2.4 },
  { toA: 125, maxMm2: 50, torqueNm: 3.5 },
  { toA: 250, maxMm2: 120, torqueNm: 14 },
];

function lineTerminals(ratedA: number, mostConductors: number): Terminal[] {
  const screw = SCREWS.find(({ toA }) => ratedA <= toA);
  return screw === undefined
    ? []
    : [
        {
          port: 'line',
          minMm2: ratedA > 125 ? 25 : 1,
          maxMm2: screw.maxMm2,
          stripMm: ratedA > 125 ? 20 : 13,
          torqueNm: screw.torqueNm,
          ends: ['bare', 'ferrule'],
          mostConductors,
        },
      ];
}

/** Isolators for alternating current have distribution terminals: sets of several units divide there. */
const WAYS = 6;

const POLES = { 1: 'one pole', 2: 'two poles', 3: 'three poles', 4: 'four poles' } as const;
type Poles = keyof typeof POLES;

interface Range {
  readonly poles: Poles;
  readonly ratedV: number;
  readonly breakingA: number;
  readonly ratings: readonly number[];
}

/** Miniature breakers of a range, one for each rating. Those of the American ranges act between five and ten times as well. */
const breakers = (
  curve: 'B' | 'C',
  { poles, ratedV, breakingA, ratings }: Range,
  mark = '',
): ProtectiveDeviceType[] =>
  ratings.map((ratedA) => ({
    kind: 'protective-device',
    id: `breaker-${curve.toLowerCase()}${ratedA}-${poles}p${mark}`,
    version: 1,
    name: `Sample breaker ${curve}${ratedA}, ${POLES[poles]}${ratedV === 240 ? ', 240 V' : ''}`,
    device: 'circuit-breaker',
    ratedA,
    ratedV,
    poles,
    curve,
    breakingA,
    terminals: lineTerminals(ratedA, 1),
  }));

const isolators = (
  device: 'isolator' | 'dc-isolator',
  poles: Poles,
  ratedV: number,
  ratings: readonly number[],
): ProtectiveDeviceType[] =>
  ratings.map((ratedA) => ({
    kind: 'protective-device',
    id: `${device}-${ratedA}a-${poles}p`,
    version: 1,
    name: `Sample ${device === 'isolator' ? 'isolator' : 'DC isolator'} ${ratedA} A, ${ratedV} V, ${POLES[poles]}${device === 'isolator' ? ', six ways' : ''}`,
    device,
    ratedA,
    ratedV,
    poles,
    terminals: lineTerminals(ratedA, device === 'isolator' ? WAYS : 1),
  }));

/** Invented breakers and isolators for lines and circuits, of both code profiles. */
export const SAMPLE_BREAKERS: readonly ProtectiveDeviceType[] = [
  ...breakers('B', { poles: 1, ratedV: 240, breakingA: 10_000, ratings: [6, 10, 16] }),
  ...breakers('C', { poles: 1, ratedV: 240, breakingA: 10_000, ratings: [6, 10, 16, 20, 25, 32, 40, 63] }),
  ...breakers('C', { poles: 2, ratedV: 400, breakingA: 10_000, ratings: [6, 16, 20, 25, 32, 40, 63] }),
  ...breakers('C', { poles: 4, ratedV: 440, breakingA: 10_000, ratings: [6, 16, 25, 32, 40, 63, 100, 125] }),
  ...breakers('C', { poles: 1, ratedV: 240, breakingA: 22_000, ratings: [15, 20, 25, 30] }, '-na'),
  ...breakers(
    'C',
    { poles: 2, ratedV: 240, breakingA: 22_000, ratings: [15, 20, 30, 40, 50, 60, 70, 100, 200] },
    '-na',
  ),
  ...isolators('isolator', 2, 440, [40, 63]),
  ...isolators('isolator', 4, 440, [63, 100]),
  ...isolators('dc-isolator', 2, 1000, [32]),
];
