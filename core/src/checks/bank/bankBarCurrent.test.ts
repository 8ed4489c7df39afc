import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, circuit1, heater } from '../../testkit/designs.ts';
import { bankBarCurrent } from './bankBarCurrent.ts';

checkTable(bankBarCurrent, [
  { name: 'no bar of a type', state: 'nothing' },
  {
    name: '54.6 A on a bar for 400',
    edit: (d) => void (bank1(d).barTypeId = 'bar-400a-8'),
    state: 'within',
    value: 54.62,
    limit: 400,
  },
  {
    name: 'ten heaters: 546 A',
    edit: (d) => {
      bank1(d).barTypeId = 'bar-400a-8';
      circuit1(d).items = [heater('i1', { quantity: 10 })];
    },
    state: 'over',
    value: 546.16,
  },
]);
