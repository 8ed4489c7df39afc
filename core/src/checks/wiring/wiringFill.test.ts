import type { Design } from '../../design/schema.ts';
import type { Passage } from '../../design/wiringSchema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { circuit1, stack1 } from '../../testkit/designs.ts';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { wiringFill } from './wiringFill.ts';

type Cables = NonNullable<NonNullable<Design['wiring']>['cables']>;

/** The heater's cable of 4 mm² with line, neutral and earth, and what it goes through. */
function through(design: Design, over: Partial<Passage>, cable: Partial<Cables[number]> = {}): void {
  circuit1(design).cable = { lengthM: 10, areaMm2: 4 };
  design.wiring = {
    cables: [{ id: 'w', lineId: 'circuit c1', ...cable }],
    passages: [{ id: 'p', name: 'conduit to the heater', kind: 'conduit', lineIds: ['circuit c1'], ...over }],
  };
}

/** The unit's type with two holes of 25 mm in its bottom. */
function withHoles(design: Design): void {
  const found = SAMPLE_TYPES.find(({ id }) => id === 'hybrid-5k-1ph');
  if (found?.kind !== 'inverter' || found.body === undefined) throw new Error('It is a sample with a body.');
  design.types.push({
    ...found,
    id: 'own-inverter',
    body: { ...found.body, entries: [{ side: 'bottom', diameterMm: 25, count: 2 }] },
  });
  stack1(design).inverterTypeId = 'own-inverter';
}

checkTable(wiringFill, [
  { name: 'nothing is listed', state: 'nothing' },
  {
    // 3 · π/4 · 4.8² = 54.29 mm² in π/4 · 13² = 132.73 mm²: 40.9 % of 45 %.
    name: 'three single cores of 4 mm² in 13 mm',
    edit: (d) => through(d, { innerMm: 13 }, { method: 'B1' }),
    state: 'within',
    value: 0.409,
    limit: 0.45,
  },
  {
    // In π/4 · 12² = 113.10 mm²: 48.0 %.
    name: 'three single cores of 4 mm² in 12 mm',
    edit: (d) => through(d, { innerMm: 12 }, { method: 'B1' }),
    state: 'over',
    value: 0.48,
    limit: 0.45,
    says: 'is filled',
  },
  {
    name: 'a cable in a sheath whose thickness nobody has measured',
    edit: (d) => through(d, { innerMm: 16 }),
    state: 'unknown',
    missing: 'wiring/cables/w/outsideMm',
  },
  {
    // π/4 · 9.6² over π/4 · 16²: (9.6 / 16)² = 36 %.
    name: 'a cable of 9.6 mm in 16 mm',
    edit: (d) => through(d, { innerMm: 16 }, { outsideMm: 9.6 }),
    state: 'within',
    value: 0.36,
  },
  {
    // 10 AWG: 0.0211 in²; three of them 0.0633 in² = 40.84 mm² in π/4 · 11² = 95.03 mm²: 43.0 % of 40 %.
    name: 'three of 10 AWG in 11 mm, North American',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      through(d, { innerMm: 11 });
      circuit1(d).cable = { lengthM: 10, areaMm2: 5.26 };
    },
    state: 'over',
    value: 0.4297,
    limit: 0.4,
  },
  {
    // 2 · (9.6 / 25)² = 29 %, and its own circuit twice: two conductors in parallel are as many circuits.
    name: 'a cable that is said to lie by itself beside another in its conduit',
    edit: (d) => through(d, { innerMm: 25 }, { outsideMm: 9.6, parallel: 2, grouped: 1 }),
    state: 'over',
    value: 2,
    limit: 1,
    says: 'worked out as one of 1',
  },
  {
    name: 'one that is said to lie among as many as there are',
    edit: (d) => through(d, { innerMm: 25 }, { outsideMm: 9.6, parallel: 2, grouped: 2 }),
    state: 'within',
  },
  {
    name: 'a gland that does not close on its cable',
    edit: (d) => through(d, { kind: 'gland', innerMm: 14, leastMm: 10 }, { outsideMm: 9.6 }),
    state: 'over',
    value: 9.6,
    limit: 10,
    says: 'seals on at least 10 mm',
  },
  {
    name: 'a gland for 6 to 12 mm',
    edit: (d) => through(d, { kind: 'gland', innerMm: 12, leastMm: 6 }, { outsideMm: 9.6 }),
    state: 'within',
  },
  {
    name: 'a hole of 32 mm where the widest is 25 mm',
    edit: (d) => {
      through(
        d,
        { kind: 'gland', innerMm: 12, threadMm: 32, intoId: 'unit s/u1', side: 'bottom' },
        { outsideMm: 9.6 },
      );
      withHoles(d);
    },
    state: 'over',
    value: 32,
    limit: 25,
  },
  {
    name: 'a side without holes',
    edit: (d) => {
      through(
        d,
        { kind: 'gland', innerMm: 12, threadMm: 20, intoId: 'unit s/u1', side: 'top' },
        { outsideMm: 9.6 },
      );
      withHoles(d);
    },
    state: 'over',
    value: 1,
    limit: 0,
    says: 'on the top of its part',
  },
]);
