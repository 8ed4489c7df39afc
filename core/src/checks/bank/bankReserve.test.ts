import { bank1, forget } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bankReserve } from './bankReserve.ts';

checkTable(bankReserve, [
  { name: '50 % over 10 %', state: 'within' },
  { name: 'equal is not above', edit: (d) => void (bank1(d).reserveSoc = 0.1), state: 'over' },
  { name: 'below', edit: (d) => void (bank1(d).reserveSoc = 0.05), state: 'over', value: 0.05 },
  {
    name: 'no cut-off',
    edit: (d) => forget(bank1(d), 'cutoffSoc'),
    state: 'unknown',
    missing: 'stacks/s/bank/cutoffSoc',
  },
]);
