import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { forget } from '../testkit/designs.ts';
import { pvStringVoltage } from './pvStringVoltage.ts';

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

checkTable(pvStringVoltage, [
  { name: 'no array', state: 'nothing' },
  {
    name: '10 · 38.8 · (1 + 0.0026 · 45) = 433.4 V of 500',
    edit: (d) => strings(d, 10),
    state: 'within',
    value: 433.4,
    limit: 500,
  },
  { name: '12 in a string: 520.1 V', edit: (d) => strings(d, 12), state: 'over', value: 520.08 },
  { name: '11: 476.7 V of 500', edit: (d) => strings(d, 11), state: 'within', value: 476.74 },
  {
    name: 'record low not known',
    edit: (d) => {
      strings(d, 10);
      forget(d.site, 'lowestC');
    },
    state: 'unknown',
    missing: 'site/lowestC',
  },
  {
    name: 'on no input yet',
    edit: (d) => strings(d, 10, { places: [] }),
    state: 'unknown',
    missing: 'arrays/a/places',
  },
]);
