import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { bank1 } from '../testkit/designs.ts';
import { bankBusEnds } from './bankBusEnds.ts';

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

/** The same with modules that want a plug at the last one. */
function plugged(design: Design, terminated: string[]): void {
  closed(design);
  const bank = bank1(design);
  bank.batteryTypeId = 'lfp-51v-280ah';
  for (const link of bank.comms?.links ?? []) {
    link.fromPort = link.from === 'host' ? 'BAT' : 'OUT';
    link.toPort = 'IN';
  }
  if (bank.comms !== undefined) bank.comms.terminated = terminated;
}

checkTable(bankBusEnds, [
  { name: 'comms not said', state: 'unknown', missing: 'stacks/s/bank/comms' },
  { name: 'a type that wants none', edit: closed, state: 'within', says: 'no terminator of yours' },
  { name: 'plugged at the last', edit: (d) => plugged(d, ['m4']), state: 'within', says: 'module 4' },
  {
    name: 'plugged at the first',
    edit: (d) => plugged(d, ['m1']),
    state: 'over',
    value: 2,
    says: 'module 4 is the end of the battery bus and has no terminator; module 1 has a terminator',
  },
]);
