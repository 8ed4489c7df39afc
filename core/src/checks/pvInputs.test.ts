import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { pvInputs } from './pvInputs.ts';

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

const at = (id: string, input: number, unitId = 'u1') => ({ id, stackId: 's', unitId, input, strings: 1 });

checkTable(pvInputs, [
  { name: 'alone on its input', edit: (d) => strings(d, 10), state: 'within' },
  {
    name: 'its like beside it',
    edit: (d) => {
      strings(d, 10);
      strings(d, 10, { id: 'a2', name: 'Second south roof' });
    },
    state: 'within',
  },
  {
    name: 'an east roof beside it',
    edit: (d) => {
      strings(d, 10);
      strings(d, 10, { id: 'a2', name: 'East roof', directionDeg: 90 });
    },
    state: 'over',
    says: 'shares the input with East roof, which differs in direction',
  },
  {
    name: 'one array on two inputs',
    edit: (d) => strings(d, 10, { places: [at('p', 1), at('q', 2)] }),
    state: 'over',
    says: 'is on two inputs',
  },
  {
    name: 'one array on two inverters',
    edit: (d) => {
      d.stacks[0]?.units.push({ id: 'u2' });
      strings(d, 10, { places: [at('p', 1), at('q', 1, 'u2')] });
    },
    state: 'over',
    says: 'is on two inverters',
  },
  {
    name: 'an input that the inverter does not have',
    edit: (d) => strings(d, 10, { places: [at('p', 3)] }),
    state: 'over',
    says: 'the inverter has 2 inputs',
  },
  {
    name: 'tilt not known where it is shared',
    edit: (d) => {
      strings(d, 10, { tiltDeg: undefined });
      strings(d, 10, { id: 'a2', name: 'Second', tiltDeg: undefined });
    },
    state: 'unknown',
    missing: 'arrays/a/tiltDeg',
  },
]);
