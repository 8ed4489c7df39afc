import { forget, item1, stack1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { loadPower } from './loadPower.ts';

checkTable(loadPower, [
  { name: '2300 of 5000 W', state: 'within', value: 2300, limit: 5000 },
  {
    name: 'power factor does not change watts',
    edit: (d) => void (item1(d).powerFactor = 0.5),
    state: 'within',
    value: 2300,
  },
  {
    name: 'a type with 2700 W of 3000 VA, at 30 °C: 2700 · 0.95 = 2565 W, 10.3 % left of it',
    edit: (d) => void (stack1(d).inverterTypeId = 'hybrid-3k-1ph'),
    state: 'within',
    limit: 2565,
  },
  {
    name: '2700 W item on it is over',
    edit: (d) => {
      stack1(d).inverterTypeId = 'hybrid-3k-1ph';
      item1(d).runningW = 2700;
    },
    state: 'over',
  },
  {
    name: 'no type',
    edit: (d) => forget(stack1(d), 'inverterTypeId'),
    state: 'unknown',
    missing: 'stacks/s/inverterTypeId',
  },
]);
