import { forget, stack1, threePhase } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { stackEqualLines } from './stackEqualLines.ts';

checkTable(stackEqualLines, [
  { name: 'does not apply to one line', state: 'nothing' },
  { name: '2, 2, 2', edit: (d) => threePhase(d, [2, 2, 2]), state: 'within', says: '2, 2, 2' },
  { name: '2, 1, 2', edit: (d) => threePhase(d, [2, 1, 2]), state: 'over', value: 1, says: '2, 1, 2' },
  {
    name: 'a unit without a line',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      const u = stack1(d).units[0];
      if (u !== undefined) forget(u, 'line');
    },
    state: 'unknown',
    missing: 'stacks/s/units/L1-1/line',
  },
]);
