import { addLoad, forget, item1, threePhase } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { loadTotal } from './loadTotal.ts';

checkTable(loadTotal, [
  { name: 'one line: the same as the line', state: 'within', value: 2300, limit: 5000 },
  {
    name: 'three lines of one unit: 15000 VA, no sharing',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'c2', ['L2']);
    },
    state: 'within',
    value: 4600,
    limit: 15000,
  },
  {
    name: 'three lines of two units: 6 · 5000 / 1.05 = 28571.4',
    edit: (d) => threePhase(d, [2, 2, 2]),
    state: 'within',
    limit: 28571.4,
  },
  {
    name: 'ten heaters on one unit',
    edit: (d) => void (item1(d).quantity = 10),
    state: 'over',
    value: 23000,
  },
  {
    name: 'no demand factor',
    edit: (d) => forget(item1(d), 'demandFactor'),
    state: 'unknown',
    missing: 'circuits/c1/items/i1/demandFactor',
  },
]);
