import { checkTable } from '../testkit/checkTable.ts';
import { stack1 } from '../testkit/designs.ts';
import { bankRule } from './bankRule.ts';

const two = [{ id: 'u1' }, { id: 'u2' }];

checkTable(bankRule, [
  { name: 'one unit', state: 'nothing' },
  { name: 'a type that shares', edit: (d) => void (stack1(d).units = [...two]), state: 'within' },
  {
    name: 'a type that wants its own',
    edit: (d) => void Object.assign(stack1(d), { units: [...two], inverterTypeId: 'hybrid-12k-3ph' }),
    state: 'over',
    says: 'wants a bank of its own',
  },
]);
