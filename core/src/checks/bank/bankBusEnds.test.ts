import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { closedLoop } from '../../testkit/wired.ts';
import { bank1 } from '../../testkit/designs.ts';
import { bankBusEnds } from './bankBusEnds.ts';

/** The same with modules that want a plug at the last one. */
function plugged(design: Design, terminated: string[]): void {
  closedLoop(design);
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
  { name: 'a type that wants none', edit: closedLoop, state: 'within', says: 'no terminator of yours' },
  { name: 'plugged at the last', edit: (d) => plugged(d, ['m4']), state: 'within', says: 'module 4' },
  {
    name: 'plugged at the first',
    edit: (d) => plugged(d, ['m1']),
    state: 'over',
    value: 2,
    says: 'module 4 is the end of the battery bus and has no terminator; module 1 has a terminator',
  },
]);
