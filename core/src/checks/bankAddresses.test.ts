import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { bank1, forget } from '../testkit/designs.ts';
import { bankAddresses } from './bankAddresses.ts';

/** The four modules of the base on a closed loop, in order, addressed from 1. */
function closed(design: Design): void {
  const bank = bank1(design);
  bank.modules.forEach((module, index) => (module.address = index + 1));
  bank.comms = {
    loop: 'closed',
    protocol: 'bus-a',
    links: [
      { id: 'l1', from: 'host', fromPort: 'BAT', to: 'm1', toPort: 'UP' },
      ...[1, 2, 3].map((at) => ({
        id: `l${at + 1}`,
        from: `m${at}`,
        fromPort: 'DOWN',
        to: `m${at + 1}`,
        toPort: 'UP',
      })),
    ],
  };
}

checkTable(bankAddresses, [
  { name: 'comms not said', state: 'unknown', missing: 'stacks/s/bank/comms' },
  { name: 'from 1 in order', edit: closed, state: 'within', says: 'addresses 1 to 4' },
  {
    name: 'one twice',
    edit: (d) => {
      closed(d);
      const third = bank1(d).modules[2];
      if (third !== undefined) third.address = 2;
    },
    state: 'over',
    says: 'module 3 has address 2, as module 2 has',
  },
  {
    name: 'counted from 0 where the type counts from 1',
    edit: (d) => {
      closed(d);
      bank1(d).modules.forEach((module, index) => (module.address = index));
    },
    state: 'over',
    value: 4,
    says: 'module 1 has address 0, where 1 is its place',
  },
  {
    name: 'one not set',
    edit: (d) => {
      closed(d);
      const second = bank1(d).modules[1];
      if (second !== undefined) forget(second, 'address');
    },
    state: 'unknown',
    missing: 'stacks/s/bank/modules/m2/address',
  },
]);
