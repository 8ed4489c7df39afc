import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, stack1 } from '../../testkit/designs.ts';
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
  {
    name: 'a type that wants its own and has it',
    edit: (d) => {
      Object.assign(stack1(d), { units: [...two], inverterTypeId: 'hybrid-12k-3ph' });
      bank1(d).serves = 'one-unit';
    },
    state: 'within',
    says: 'a bank of its own each',
  },
  {
    name: 'a type that must share and does not',
    edit: (d) => {
      stack1(d).units = [...two];
      bank1(d).serves = 'one-unit';
    },
    state: 'over',
    says: 'must share one',
  },
]);
