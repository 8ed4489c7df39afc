import { stack1, threePhase } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { stackCount } from './stackCount.ts';

const parallel =
  (n: number) =>
  (d: Parameters<typeof stack1>[0]): void => {
    stack1(d).arrangement = 'parallel-single-phase';
    stack1(d).units = Array.from({ length: n }, (_, index) => ({ id: `u${index}` }));
  };

checkTable(stackCount, [
  { name: 'one of three', state: 'within', value: 1, limit: 3 },
  { name: 'three of three is allowed', edit: parallel(3), state: 'within', value: 3, limit: 3 },
  {
    name: 'four on one line',
    edit: parallel(4),
    state: 'over',
    value: 4,
    limit: 3,
    says: '4 units on one line',
  },
  { name: 'nine of nine in all', edit: (d) => threePhase(d, [3, 3, 3]), state: 'within' },
]);
