import { checkTable } from '../../testkit/checkTable.ts';
import { forget, stack1 } from '../../testkit/designs.ts';
import { stackOutlet } from './stackOutlet.ts';

checkTable(stackOutlet, [
  { name: 'a unit with an outlet has nothing to say', state: 'nothing' },
  {
    name: 'a box on the DC side with a board on it',
    edit: (d) => void Object.assign(stack1(d), { inverterTypeId: 'dc-box-6k', arrangement: 'dc-side-box' }),
    state: 'over',
    says: 'Backup output is fed by it, but it sits on the DC side',
  },
  {
    name: 'an AC-coupled type without an outlet, nothing on it',
    edit: (d) => {
      Object.assign(stack1(d), { inverterTypeId: 'ac-storage-3k6-1ph', arrangement: 'ac-coupled-storage' });
      for (const one of d.partitions) forget(one, 'stackId');
    },
    state: 'within',
    says: 'backs up nothing by itself',
  },
  {
    name: 'arrangement not chosen',
    edit: (d) => forget(stack1(d), 'arrangement'),
    state: 'unknown',
    missing: 'stacks/s/arrangement',
  },
]);
