import { forget, item1, stack1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { gridPassThrough } from './gridPassThrough.ts';

checkTable(gridPassThrough, [
  { name: '2300 W at 230 V: 10 A of 35', state: 'within', value: 10, limit: 35 },
  {
    name: 'charging does not pass through',
    edit: (d) => void (stack1(d).gridChargeW = 5000),
    state: 'within',
    value: 10,
  },
  { name: 'four heaters: 40 A', edit: (d) => void (item1(d).quantity = 4), state: 'over', value: 40 },
  {
    name: 'two units: 2 · 35 / 1.05 = 66.7',
    edit: (d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units.push({ id: 'u2' });
    },
    state: 'within',
    limit: 66.67,
  },
  {
    name: 'no line voltage',
    edit: (d) => forget(d.site, 'lineVoltageV'),
    state: 'unknown',
    missing: 'site/lineVoltageV',
  },
]);
