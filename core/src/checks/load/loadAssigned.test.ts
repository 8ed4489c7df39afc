import { circuit1, forget } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { loadAssigned } from './loadAssigned.ts';

checkTable(loadAssigned, [
  { name: 'all placed', state: 'within' },
  {
    name: 'a circuit without a place',
    edit: (d) => forget(circuit1(d), 'partitionId'),
    state: 'unknown',
    missing: 'circuits/c1/partitionId',
    says: 'partition of Heat',
  },
  {
    name: 'a backup output that nothing feeds',
    edit: (d) => {
      const p = d.partitions[1];
      if (p !== undefined) forget(p, 'stackId');
    },
    state: 'unknown',
    missing: 'partitions/b/stackId',
  },
  {
    name: 'a shed stage behind no set: its load comes to one of them',
    edit: (d) => void d.partitions.push({ id: 'p', name: 'Kitchen', kind: 'shed' }),
    state: 'unknown',
    missing: 'partitions/p/stackId',
  },
  { name: 'no circuits: nothing to say', edit: (d) => void (d.circuits = []), state: 'nothing' },
]);
