import { checkTable } from '../../testkit/checkTable.ts';
import { addLoad, circuit1, forget, item1 } from '../../testkit/designs.ts';
import { loadMustRun } from './loadMustRun.ts';

checkTable(loadMustRun, [
  { name: 'nothing must run', state: 'nothing' },
  { name: 'what must run is backed up', edit: (d) => void (item1(d).importance = 'must'), state: 'within' },
  {
    name: 'on the grid side it is dark',
    edit: (d) => {
      item1(d).importance = 'must';
      circuit1(d).partitionId = 'g';
    },
    state: 'over',
    value: 1,
    says: 'Heat must run in an outage and hangs on Grid side',
  },
  {
    name: 'locked out in island is dark as well',
    edit: (d) => {
      d.partitions.push({ id: 'l', name: 'Locked', kind: 'locked-out', stackId: 's' });
      addLoad(d, 'c2', ['L1'], { importance: 'must' });
      Object.assign(d.circuits[1] ?? {}, { partitionId: 'l' });
    },
    state: 'over',
    value: 1,
  },
  {
    name: 'shed at transfer it is dark, shed later it is carried',
    edit: (d) => {
      item1(d).importance = 'must';
      Object.assign(d.partitions[1] ?? {}, { kind: 'shed', shedWhen: 'at-transfer' });
    },
    state: 'over',
    value: 1,
  },
  {
    name: 'nowhere yet: nobody knows',
    edit: (d) => {
      item1(d).importance = 'must';
      forget(circuit1(d), 'partitionId');
    },
    state: 'unknown',
    missing: 'circuits/c1/partitionId',
  },
]);
