import { checkTable } from '../../testkit/checkTable.ts';
import { closedLoop } from '../../testkit/wired.ts';
import { bank1, forget } from '../../testkit/designs.ts';
import { bankAddresses } from './bankAddresses.ts';

checkTable(bankAddresses, [
  { name: 'comms not said', state: 'unknown', missing: 'stacks/s/bank/comms' },
  { name: 'from 1 in order', edit: closedLoop, state: 'within', says: 'addresses 1 to 4' },
  {
    name: 'one twice',
    edit: (d) => {
      closedLoop(d);
      const third = bank1(d).modules[2];
      if (third !== undefined) third.address = 2;
    },
    state: 'over',
    says: 'module 3 has address 2, as module 2 has',
  },
  {
    name: 'counted from 0 where the type counts from 1',
    edit: (d) => {
      closedLoop(d);
      bank1(d).modules.forEach((module, index) => (module.address = index));
    },
    state: 'over',
    value: 4,
    says: 'module 1 has address 0, where 1 is its place',
  },
  {
    name: 'one not set',
    edit: (d) => {
      closedLoop(d);
      const second = bank1(d).modules[1];
      if (second !== undefined) forget(second, 'address');
    },
    state: 'unknown',
    missing: 'stacks/s/bank/modules/m2/address',
  },
]);
