import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { forget } from '../testkit/designs.ts';
import { pvStringWindow } from './pvStringWindow.ts';

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

checkTable(pvStringWindow, [
  { name: 'no array', state: 'nothing' },
  {
    name: 'cells at 35 + 30 = 65 °C: 10 · 32.4 · (1 - 0.0032 · 40) = 282.5; in the cold 370.7 of 430 is nearer',
    edit: (d) => strings(d, 10),
    state: 'within',
    value: 370.66,
    limit: 430,
  },
  {
    name: 'four: 113.0 V of 120',
    edit: (d) => strings(d, 4),
    state: 'over',
    value: 113.01,
    limit: 120,
    says: 'cells at 65 °C',
  },
  {
    name: 'record high not known',
    edit: (d) => {
      strings(d, 10);
      forget(d.site, 'highestC');
    },
    state: 'unknown',
    missing: 'site/highestC',
  },
]);
