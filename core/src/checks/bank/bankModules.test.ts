import { bank1, forget } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bankModules } from './bankModules.ts';

const many =
  (n: number) =>
  (d: Parameters<typeof bank1>[0]): void =>
    void (bank1(d).modules = Array.from({ length: n }, (_, i) => ({ id: `m${i}` })));

checkTable(bankModules, [
  { name: '4 of 16', state: 'within', value: 4, limit: 16 },
  { name: '16 of 16', edit: many(16), state: 'within' },
  { name: '17 of 16', edit: many(17), state: 'over', value: 17 },
  {
    name: 'no type',
    edit: (d) => forget(bank1(d), 'batteryTypeId'),
    state: 'unknown',
    missing: 'stacks/s/bank/batteryTypeId',
  },
]);
