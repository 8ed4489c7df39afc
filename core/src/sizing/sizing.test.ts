import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { leadSizeWords, readLeadSize } from '../codes/leadSizes.ts';
import type { TableValue } from '../codes/tableValues.ts';
import { tableValue } from '../design/tableValue.ts';
import { compile } from '../installation/compile.ts';
import { conductorSchedule } from '../schedules/conductors.ts';
import { baseDesign, circuit1 } from '../testkit/designs.ts';
import { dropV } from './drop.ts';
import { carriesWords, judgeSize } from './judgeSize.ts';
import { protectiveMm2 } from './protective.ts';
import type { ConductorQuestion, SizeTest } from './question.ts';
import { smallestSize } from './smallestSize.ts';

type Asked = Partial<Omit<ConductorQuestion, 'laid'>> & {
  readonly laid?: Partial<ConductorQuestion['laid']>;
};

const question = (profile: ConductorQuestion['profile'], { laid, ...over }: Asked): ConductorQuestion => ({
  profile,
  system: 'one-line',
  parallel: 1,
  continuousA: 10,
  passingA: 0,
  deviceA: undefined,
  isFuse: false,
  terminalColumn: '75C',
  volts: profile === 'metric' ? 230 : 120,
  powerFactor: 1,
  lengthM: undefined,
  isFlexible: false,
  dropLimit: 0.05,
  start: undefined,
  faults: () => [],
  faultsMissing: [],
  terminals: [],
  ...over,
  laid: {
    insulation: profile === 'metric' ? 'PVC70' : '75C',
    method: 'C',
    ambientC: 30,
    grouped: profile === 'metric' ? 1 : 3,
    loadedConductors: 2,
    neutralCounts: false,
    ...laid,
  },
});

type Row = readonly [name: string, asked: Asked, size: string, governs: SizeTest | undefined];

const METRIC: readonly Row[] = [
  // R70 = 12.1 · 1.1965 = 14.478 mΩ/m: 2 · 20 · 14 · 0.014478 = 8.11 V = 3.5 %; 1.5 mm² carries 19.5 A.
  ['16 A over 20 m: the thinnest there is', { continuousA: 14, deviceA: 16, lengthM: 20 }, '1.5', undefined],
  // At 35 m 1.5 mm² loses 6.2 %; 2.5 mm²: 2 · 35 · 14 · 0.008866 = 8.69 V = 3.8 %.
  ['the same over 35 m', { continuousA: 14, deviceA: 16, lengthM: 35 }, '2.5', 'drop'],
  // 0.87 · 0.7 = 0.609: 6 mm² carries 46 · 0.609 = 28.01 A, 10 mm² 38.4 A.
  [
    '32 A at 40 °C beside two others',
    { continuousA: 28, deviceA: 32, laid: { ambientC: 40, grouped: 3 } },
    '10',
    'device',
  ],
  [
    'three lines, XLPE in conduit: 16 mm² carries just 80 A, 10 mm² 60 A',
    {
      system: 'three-line',
      continuousA: 80,
      deviceA: 80,
      laid: { insulation: 'XLPE90', method: 'B2', loadedConductors: 3 },
    },
    '16',
    'load',
  ],
  // 10 mm² carries 63 A, but 1.6 · 63 = 100.8 A are more than 1.45 · 63 = 91.4 A.
  ['a fuse of 63 A', { continuousA: 60, deviceA: 63, isFuse: true }, '16', 'overload'],
  // 16 mm²: 76 · 0.86 = 65.4 A, without it 76 A; 25 mm²: 96 · 0.86 = 82.6 A.
  [
    'a neutral that carries as much as a line',
    {
      system: 'three-line',
      continuousA: 50,
      deviceA: 70,
      laid: { loadedConductors: 3, neutralCounts: true },
    },
    '25',
    'device',
  ],
  // 50 mm²: 168 · 0.94 = 157.9 A; 70 mm²: 213 · 0.94 = 200 A.
  [
    'a battery lead behind 160 A at 35 °C',
    {
      system: 'dc',
      isFlexible: true,
      volts: 44.8,
      continuousA: 119,
      deviceA: 160,
      lengthM: 1.9,
      dropLimit: 0.01,
      laid: { ambientC: 35 },
    },
    '70',
    'device',
  ],
  // 1.5 mm²: 2 · 60 · 30 · (14.478 · 0.5 + 0.08 · 0.866) mΩ = 26.3 V = 11.4 %; 2.5 mm²: 16.2 V = 7 %.
  [
    'a motor that starts with 30 A at 60 m',
    { continuousA: 5, deviceA: 10, lengthM: 60, start: { currentA: 30, powerFactor: 0.5, dropLimit: 0.1 } },
    '2.5',
    'start-drop',
  ],
  // √(1000² · 0.1) / 115 = 2.75 mm².
  [
    '1 kA for 0.1 s',
    {
      continuousA: 10,
      deviceA: 10,
      faults: () => [{ label: 'grid', currentA: 1000, timeS: 0.1, unless: undefined }],
    },
    '4',
    'adiabatic',
  ],
  // √3 · 80 · 40 · 2.1896 mΩ = 12.1 V = 3 %; 6 mm²: 3.685 mΩ → 20.4 V = 5.1 %.
  [
    'three lines over 80 m',
    {
      system: 'three-line',
      volts: 400,
      continuousA: 40,
      deviceA: 40,
      lengthM: 80,
      laid: { loadedConductors: 3 },
    },
    '10',
    'drop',
  ],
  [
    'a terminal that begins at 6 mm²',
    { deviceA: 16, terminals: [{ label: 'port', minMm2: 6, maxMm2: 16 }] },
    '6',
    'terminal',
  ],
];

const AMERICAN: readonly Row[] = [
  // 1.25 · 16 = 20 A; 14 AWG carries 20 A and may have 15 A ahead of it at most.
  ['16 A that stay, behind 20 A', { continuousA: 16, deviceA: 20 }, '12 AWG', 'small-conductor'],
  [
    '40 A that stay: 1.25 · 40 = 50 A, the column of 8 AWG',
    { continuousA: 40, deviceA: 50 },
    '8 AWG',
    'small-conductor',
  ],
  [
    'the same at terminals for 60 °C: 8 AWG has 40 A there, 6 AWG 55 A',
    { continuousA: 40, deviceA: 50, terminalColumn: '60C' },
    '6 AWG',
    'terminal-column',
  ],
  // Both count for the device: 8 AWG has 55 A in its insulation's column and 50 A in that of its terminals.
  [
    'behind 60 A in 90 °C insulation at terminals for 75 °C',
    { continuousA: 40, deviceA: 60, laid: { insulation: '90C' } },
    '6 AWG',
    'device',
  ],
  // 0.91 · 0.8: 4 AWG 69.2 A, next standard 70 A < 80 A; 3 AWG 83.7 A, next 90 A.
  [
    '90 °C insulation, 40 °C, six in the raceway, 80 A',
    { continuousA: 60, deviceA: 80, laid: { insulation: '90C', ambientC: 40, grouped: 6 } },
    '3 AWG',
    'device',
  ],
  [
    '200 A that stay: 250 A; 4/0 has 230 A in its column, 250 kcmil 255 A',
    { continuousA: 200, deviceA: 250 },
    '250 kcmil',
    'terminal-column',
  ],
  [
    '50 A that pass: no 1.25 on them',
    { continuousA: 0, passingA: 50, deviceA: 50 },
    '8 AWG',
    'small-conductor',
  ],
  [
    'two in parallel for 250 A: two 1 AWG would carry it, and are too thin to be paralleled',
    { continuousA: 200, deviceA: 250, parallel: 2 },
    '1/0 AWG',
    'parallel',
  ],
  // 2 · 30 · 16 · R: 12 AWG 6.496 mΩ/m 6.24 V, 10 AWG 4.068 mΩ/m 3.9 V = 3.3 %, 8 AWG 2.552 mΩ/m 2.45 V = 2 %. At 125 % 8 AWG too.
  [
    '16 A over 30 m with 3 %',
    { continuousA: 16, deviceA: 20, lengthM: 30, dropLimit: 0.03 },
    '8 AWG',
    'drop',
  ],
  // 2 · 24 · 16 · 4.068 mΩ = 3.12 V = 2.6 %; at 20 A it would be 3.25 %.
  [
    'a drop at the load itself, not at 125 %',
    { continuousA: 16, deviceA: 20, lengthM: 24, dropLimit: 0.03 },
    '10 AWG',
    'drop',
  ],
  // 8 AWG: 50 · 0.75 = 37.5 A ≥ 30 A, next standard 40 A. 10 AWG: 35 · 0.75 = 26.3 A.
  ['at 50 °C', { continuousA: 30, deviceA: 40, laid: { ambientC: 50 } }, '8 AWG', 'device'],
  // 90 °C column 55 · 0.7 = 38.5 A < 40 A: 6 AWG 75 · 0.7 = 52.5 A.
  ['nine in the raceway', { continuousA: 40, laid: { insulation: '90C', grouped: 9 } }, '6 AWG', 'load'],
];

describe.each([
  ['metric', METRIC],
  ['north-american', AMERICAN],
] as const)('the smallest size, %s', (profile, rows) => {
  it.each(rows)('%s', (_, asked, size, governs) => {
    const found = smallestSize(question(profile, asked));
    expect(found).toMatchObject({ kind: 'found', areaMm2: readLeadSize(size, 'metric') });
    expect(found.kind === 'found' && found.governs).toBe(governs);
  });
});

describe('a size that is not to be had', () => {
  it('says what carries and what fits', () =>
    expect(
      smallestSize(
        question('metric', {
          continuousA: 60,
          deviceA: 63,
          terminals: [{ label: 'port', minMm2: 1.5, maxMm2: 6 }],
        }),
      ),
    ).toEqual({ kind: 'too thick for its terminals', areaMm2: 10, mostMm2: 6 }));
  it('has no size above the table, none in air too hot for its insulation, and none in insulation of the other profile', () => {
    expect(smallestSize(question('metric', { continuousA: 400 }))).toEqual({ kind: 'none' });
    expect(smallestSize(question('metric', { laid: { ambientC: 65 } }))).toEqual({ kind: 'none' });
    expect(smallestSize(question('north-american', { laid: { insulation: 'PVC70' } }))).toEqual({
      kind: 'none',
    });
  });
  it('leaves a size tight where the device may still clear the fault', () => {
    const faults = () => [{ label: 'grid', currentA: 3000, timeS: 0.02, unless: 'the breaker may clear it' }];
    const answer = judgeSize(question('metric', { faults }), 2.5).find(({ test }) => test === 'adiabatic');
    // √(3000² · 0.02) / 115 = 3.69 mm².
    expect(answer).toMatchObject({ state: 'tight', limit: 2.5 });
    expect(answer?.value).toBeCloseTo(3.689, 3);
  });
});

describe('voltage lost', () => {
  it('by hand: 35 mm² three-line, 50 m, 100 A, power factor 0.8', () => {
    // 0.524 · 1.1965 = 0.62697 mΩ/m · 0.8 + 0.08 · 0.6 = 0.54957 mΩ/m; √3 · 50 · 100 · that = 4.7595 V.
    const asked = question('metric', { system: 'three-line' });
    expect(dropV(asked, 35, 50, 100, 0.8)).toBeCloseTo(4.7595, 3);
    expect(dropV({ ...asked, system: 'dc' }, 35, 50, 100, 0.8)).toBeCloseTo(2 * 50 * 100 * 0.00062697, 4);
    expect(dropV({ ...asked, parallel: 2 }, 35, 50, 100, 0.8)).toBeCloseTo(4.7595 / 2, 3);
  });
});

it.each([
  ['metric', 10, undefined, 10],
  ['metric', 25, undefined, 16],
  ['metric', 70, undefined, 35],
  ['north-american', 13.3, 50, 5.26],
  ['north-american', 85, 200, 13.3],
  ['north-american', 2.08, 60, 2.08],
  ['north-american', 13.3, undefined, undefined],
] as const)(
  '%s: a protective conductor with %s mm² behind %s A has %s mm²',
  (profile, areaMm2, deviceA, wanted) => expect(protectiveMm2(profile, areaMm2, deviceA)).toBe(wanted),
);

it('never gets thinner with more load, more length, hotter air or more neighbours', () => {
  const areaOf = (asked: Asked): number => {
    const found = smallestSize(question('metric', asked));
    return found.kind === 'found' ? found.areaMm2 : Infinity;
  };
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 200, noNaN: true }),
      fc.double({ min: 1, max: 200, noNaN: true }),
      fc.integer({ min: 10, max: 60 }),
      fc.integer({ min: 1, max: 20 }),
      (loadA, lengthM, ambientC, grouped) => {
        const one = { continuousA: loadA, deviceA: loadA, lengthM, laid: { ambientC, grouped } };
        const area = areaOf(one);
        expect(areaOf({ ...one, continuousA: loadA * 1.3 })).toBeGreaterThanOrEqual(area);
        expect(areaOf({ ...one, lengthM: lengthM * 1.3 })).toBeGreaterThanOrEqual(area);
        expect(areaOf({ ...one, laid: { ambientC: ambientC + 3, grouped } })).toBeGreaterThanOrEqual(area);
        expect(
          areaOf({ ...one, laid: { ambientC, grouped: Math.min(20, grouped + 2) } }),
        ).toBeGreaterThanOrEqual(area);
      },
    ),
  );
});

describe('a value in place of one of a code table', () => {
  const by = { reason: 'tested by its maker', by: 'Robin Approver', at: '2026-03-01T10:00:00.000Z' };
  const of = (
    profile: ConductorQuestion['profile'],
    tables: readonly TableValue[],
    laid: Partial<ConductorQuestion['laid']> = {},
  ) => question(profile, { continuousA: 24, deviceA: 25, laid: { tables, ...laid } });
  const pvc: TableValue = {
    id: 'v',
    table: 'ampacity',
    insulation: 'PVC70',
    method: 'C',
    loadedConductors: 2,
    areaMm2: 2.5,
    value: 24,
    ...by,
  };

  // 2.5 mm² clipped direct carries 27 A: enough for 25 A. At 24 A it is not, and 4 mm² is taken.
  it.each<[string, ConductorQuestion, string]>([
    ['none', of('metric', []), '2.5'],
    ['of that size', of('metric', [pvc]), '4'],
    ['of another way of laying', of('metric', [{ ...pvc, method: 'B1' }]), '2.5'],
    ['of another insulation', of('metric', [{ ...pvc, insulation: 'XLPE90' }]), '2.5'],
    ['of a size that no table has', of('metric', [{ ...pvc, areaMm2: 2, value: 26 }]), '2'],
    // 27 · 0.9 = 24.3 A, 36 · 0.9 = 32.4 A
    [
      'of the air',
      of('metric', [{ id: 'v', table: 'ambient', insulation: 'PVC70', upTo: 30, value: 0.9, ...by }]),
      '4',
    ],
    // Beyond 30 °C the table holds as before: 27 · 0.94 = 25.4 A at 35 °C.
    [
      'of air below that',
      of('metric', [{ id: 'v', table: 'ambient', insulation: 'PVC70', upTo: 30, value: 0.5, ...by }], {
        ambientC: 35,
      }),
      '2.5',
    ],
    // Two bunched: 0.8, 36 · 0.8 = 28.8 A; overridden with 0.95: 27 · 0.95 = 25.65 A.
    ['two bunched', of('metric', [], { grouped: 2 }), '4'],
    [
      'of two bunched',
      of('metric', [{ id: 'v', table: 'grouping', upTo: 2, value: 0.95, ...by }], { grouped: 2 }),
      '2.5',
    ],
    // 1.25 · 24 = 30 A: 10 AWG carries 35 A in its 75 °C column; overridden with 29 A it does not.
    ['North American, none', of('north-american', []), '10 AWG'],
    [
      'North American, of its terminal column',
      of('north-american', [
        { id: 'v', table: 'ampacity', insulation: '75C', areaMm2: 5.26, value: 29, ...by },
      ]),
      '8 AWG',
    ],
  ])('%s', (_, asked, size) => {
    const found = smallestSize(asked);
    expect(found.kind === 'found' && leadSizeWords(found.areaMm2)).toBe(
      leadSizeWords(readLeadSize(size, 'metric') ?? 0),
    );
  });

  it('stands in the working with who put it there, and in the schedule', () => {
    expect(carriesWords(of('metric', [pvc]), 2.5)).toBe(
      '24 (overridden by Robin Approver: tested by its maker) · 1 (30 °C) · 1 (grouping)',
    );
    const design = baseDesign();
    Object.assign(circuit1(design), { cable: { areaMm2: 2.5, lengthM: 10 } });
    design.tableValues = [{ ...pvc, table: 'ampacity' }];
    const row = conductorSchedule(compile(design, SAMPLE_TYPES)).rows.find(({ id }) => id === 'circuit c1');
    expect(row?.cells.override).toBe(
      'Carries, 2.5 mm², PVC70, C, 2 loaded: overridden by Robin Approver: tested by its maker',
    );
    const before = compile({ ...design, tableValues: [] }, SAMPLE_TYPES);
    expect(conductorSchedule(before).rows.find(({ id }) => id === 'circuit c1')?.cells.override).toBe('');
  });

  it('is refused where its table has no such row', () => {
    const read = (value: object) => tableValue.safeParse({ ...pvc, ...value }).success;
    expect(read({})).toBe(true);
    expect(read({ method: undefined })).toBe(false);
    expect(read({ insulation: '75C' })).toBe(false);
    expect(read({ value: 0 })).toBe(false);
  });
});
