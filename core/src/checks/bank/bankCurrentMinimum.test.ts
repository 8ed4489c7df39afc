import { stack1, item1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bankCurrentMinimum } from './bankCurrentMinimum.ts';

checkTable(bankCurrentMinimum, [
  {
    name: 'lowest of bank 44.8, window 40, trip 44 that still runs is 44.8 V: 2300 / (0.94 · 44.8) = 54.6 A',
    state: 'within',
    value: 54.62,
    limit: 110,
  },
  {
    name: 'twice: 109.2 of 110, 1 % left',
    edit: (d) => void (item1(d).quantity = 2),
    state: 'tight',
    value: 109.23,
  },
  {
    name: 'its discharge is set to 60 A of the 110 it takes: 54.6 of 60, 9 % left',
    edit: (d) => void (stack1(d).dischargeCurrentA = 60),
    state: 'tight',
    limit: 60,
  },
  {
    name: 'set above what it takes, it takes no more',
    edit: (d) => void (stack1(d).dischargeCurrentA = 200),
    state: 'within',
    limit: 110,
  },
  {
    name: 'a stopped set has no battery current',
    edit: (d) => {
      Object.assign(stack1(d), { inverterTypeId: 'hybrid-3k-1ph', arrangement: 'parallel-single-phase' });
      stack1(d).units.push({ id: 'u2', firmware: '1' });
    },
    mode: 'unit-lost:s/u1',
    state: 'nothing',
  },
  {
    name: 'no bank stated',
    edit: (d) => void Reflect.deleteProperty(stack1(d), 'bank'),
    state: 'unknown',
    missing: 'stacks/s/bank',
  },
]);
