import { bonded } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { forget, stack1 } from '../../testkit/designs.ts';
import { bondingLiveBoards } from './bondingLiveBoards.ts';

checkTable(bondingLiveBoards, [
  {
    name: 'a backed-up board is live from the unit',
    edit: bonded,
    state: 'within',
  },
  {
    name: 'a generator-only board is live while the set runs, and nobody asks in island',
    edit: (d) => {
      bonded(d);
      d.partitions = [{ id: 'o', name: 'With the set', kind: 'generator-only', stackId: 's' }];
      d.circuits = [];
    },
    state: 'nothing',
  },
  {
    name: 'no inverter type yet: it may be fed',
    edit: (d) => {
      bonded(d);
      forget(stack1(d), 'arrangement');
      d.generators.push({
        id: 'g1',
        name: 'Set',
        typeId: 'petrol-4k-1ph',
        connection: 'generator-port',
        stackId: 's',
      });
    },
    state: 'unknown',
    missing: 'stacks/s/arrangement',
  },
  {
    name: 'a set that hangs nowhere feeds nothing through a changeover',
    edit: (d) => {
      bonded(d);
      d.generators.push({
        id: 'g1',
        name: 'Set',
        typeId: 'petrol-4k-1ph',
        connection: 'transfer-switch',
        transferDeviceTypeId: 'changeover-40a-2p',
      });
    },
    mode: 'transfer-switch',
    state: 'within',
  },
]);
