import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { pvStringCurrent } from './pvStringCurrent.ts';

/** A string of 430 W modules (38.8 V, 32.4 V, 14.1 A) on input 1 of the 5 kVA unit: 500 V, 120 to 430 V, 18 A. */
function strings(design: Design, count: number, over: Partial<Design['arrays'][number]> = {}): void {
  design.site.lowestC = -20;
  design.site.highestC = 35;
  design.arrays.push({
    id: 'a',
    name: 'South roof',
    coupling: 'dc',
    moduleTypeId: 'pv-430w',
    modulesPerString: count,
    directionDeg: 180,
    tiltDeg: 30,
    places: [{ id: 'p', stackId: 's', unitId: 'u1', input: 1, strings: 1 }],
    ...over,
  });
}

checkTable(pvStringCurrent, [
  {
    name: '14.1 · 1.25 = 17.6 A of 18',
    edit: (d) => strings(d, 10),
    state: 'within',
    value: 17.625,
    limit: 18,
  },
  {
    name: 'two strings on one input: 35.3 A',
    edit: (d) => strings(d, 10, { places: [{ id: 'p', stackId: 's', unitId: 'u1', input: 1, strings: 2 }] }),
    state: 'over',
    value: 35.25,
  },
  {
    name: 'another array on the same input adds: (14.1 + 9.3) · 1.25 = 29.3',
    edit: (d) => {
      strings(d, 10);
      strings(d, 9, { id: 'a2', name: 'East roof', moduleTypeId: 'pv-330w-older' });
    },
    state: 'over',
    value: 29.25,
  },
  {
    name: 'module type not chosen',
    edit: (d) => strings(d, 10, { moduleTypeId: undefined }),
    state: 'unknown',
    missing: 'arrays/a/moduleTypeId',
  },
]);
