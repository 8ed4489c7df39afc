import { checkTable } from '../../testkit/checkTable.ts';
import { forget, stack1 } from '../../testkit/designs.ts';
import { stackHost } from './stackHost.ts';

const two = [
  { id: 'u1', firmware: '1' },
  { id: 'u2', firmware: '1' },
];

checkTable(stackHost, [
  { name: 'one unit', state: 'nothing' },
  {
    name: 'not chosen',
    edit: (d) => void (stack1(d).units = [...two]),
    state: 'unknown',
    missing: 'stacks/s/hostUnitId',
  },
  {
    name: 'chosen: battery bus and meter go to it',
    edit: (d) => void Object.assign(stack1(d), { units: [...two], hostUnitId: 'u2' }),
    state: 'within',
    says: 'unit 2 is the host: battery bus and meter are wired to it',
  },
  {
    name: 'a type whose first powered unit leads needs no choice',
    edit: (d) => void Object.assign(stack1(d), { units: [...two], inverterTypeId: 'hybrid-3k-1ph' }),
    state: 'within',
    says: 'power one alone first',
  },
  {
    name: 'type not chosen',
    edit: (d) => {
      stack1(d).units = [...two];
      forget(stack1(d), 'inverterTypeId');
    },
    state: 'unknown',
    missing: 'stacks/s/inverterTypeId',
  },
]);
