import { checkTable } from '../../testkit/checkTable.ts';
import { closedLoop } from '../../testkit/wired.ts';
import { bank1 } from '../../testkit/designs.ts';
import { bankComms } from './bankComms.ts';

checkTable(bankComms, [
  { name: 'not said', state: 'unknown', missing: 'stacks/s/bank/comms' },
  {
    name: 'one line from the inverter',
    edit: closedLoop,
    state: 'within',
    says: 'passes 4 modules in one line',
  },
  {
    name: 'the first cable in a wrong port of the inverter',
    edit: (d) => {
      closedLoop(d);
      const first = bank1(d).comms?.links[0];
      if (first !== undefined) first.fromPort = 'MTR';
    },
    state: 'over',
    says: 'in MTR, where BAT is meant',
  },
  {
    name: 'the last module not joined',
    edit: (d) => {
      closedLoop(d);
      bank1(d).comms?.links.pop();
    },
    state: 'over',
    says: 'does not reach module 4',
  },
  {
    name: 'a module that is taken out is not missed',
    edit: (d) => {
      closedLoop(d);
      bank1(d).comms?.links.pop();
      const last = bank1(d).modules[3];
      if (last !== undefined) last.fitted = 'taken-out';
    },
    state: 'within',
    says: 'passes 3 modules',
  },
  {
    name: 'a branch',
    edit: (d) => {
      closedLoop(d);
      bank1(d).comms?.links.splice(2, 1, { id: 'x', from: 'm1', fromPort: 'DOWN', to: 'm3', toPort: 'UP' });
    },
    state: 'over',
    says: 'more than one cable leaves module 1',
  },
  {
    name: 'an open loop has no bus',
    edit: (d) => void (bank1(d).comms = { loop: 'open', links: [] }),
    state: 'nothing',
  },
]);
