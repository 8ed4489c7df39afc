import { forget, item1, stack1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { gridPort } from './gridPort.ts';

checkTable(gridPort, [
  { name: '(2300 + 2000) / 230 = 18.7 A of 40', state: 'within', value: 18.7, limit: 40 },
  {
    name: 'three heaters and charging: 8900 / 230 = 38.7, 3 % left',
    edit: (d) => void (item1(d).quantity = 3),
    state: 'tight',
    value: 38.7,
  },
  {
    name: 'more charging: 11900 / 230 = 51.7',
    edit: (d) => {
      item1(d).quantity = 3;
      stack1(d).gridChargeW = 5000;
    },
    state: 'over',
    value: 51.7,
  },
  {
    name: 'charging is in phase with P, not with Q: √((2300 + 2000)² + 3983.7²) / 230 = 25.5',
    edit: (d) => void (item1(d).powerFactor = 0.5),
    state: 'within',
    value: 25.49,
  },
  {
    name: 'charging power not stated',
    edit: (d) => forget(stack1(d), 'gridChargeW'),
    state: 'unknown',
    missing: 'stacks/s/gridChargeW',
  },
]);
