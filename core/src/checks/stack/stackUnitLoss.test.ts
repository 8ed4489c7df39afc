import { checkTable } from '../../testkit/checkTable.ts';
import { stack1, threePhase } from '../../testkit/designs.ts';
import { stackUnitLoss } from './stackUnitLoss.ts';

checkTable(stackUnitLoss, [
  { name: 'one unit alone: nothing to ask', mode: 'island', state: 'nothing' },
  {
    name: 'six units, not decided: one question',
    edit: (d) => threePhase(d, [2, 2, 2]),
    mode: 'island',
    state: 'unknown',
    missing: 'site/surviveUnitLoss',
  },
  {
    name: 'two on each line: a lost one leaves the line with the other',
    edit: (d) => threePhase(d, [2, 2, 2]),
    mode: 'unit-lost:s/L1-1',
    state: 'nothing',
  },
  {
    name: 'the only unit of L2',
    edit: (d) => threePhase(d, [2, 1, 2]),
    mode: 'unit-lost:s/L2-1',
    subject: 's/L2',
    state: 'over',
    says: 'is dark',
  },
  {
    name: 'a type whose set stops says so once',
    edit: (d) => {
      Object.assign(stack1(d), { inverterTypeId: 'hybrid-3k-1ph', arrangement: 'parallel-single-phase' });
      stack1(d).units = [{ id: 'u1' }, { id: 'u2' }];
    },
    mode: 'unit-lost:s/u1',
    state: 'over',
    says: 'stops as a whole',
  },
]);
