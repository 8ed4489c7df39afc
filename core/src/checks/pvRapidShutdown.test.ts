import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { pvRapidShutdown } from './pvRapidShutdown.ts';

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

checkTable(pvRapidShutdown, [
  { name: 'not wanted in the metric profile', edit: (d) => strings(d, 10), state: 'nothing' },
  {
    name: 'wanted and not said',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      strings(d, 10);
    },
    state: 'unknown',
    missing: 'arrays/a/rapidShutdown',
  },
  {
    name: 'wanted and not there',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      strings(d, 10, { rapidShutdown: 'none' });
    },
    state: 'over',
  },
  {
    name: 'fitted',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      strings(d, 10, { rapidShutdown: 'fitted' });
    },
    state: 'within',
  },
]);
