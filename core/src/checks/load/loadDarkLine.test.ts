import { checkTable } from '../../testkit/checkTable.ts';
import { addLoad, stack1, threePhase } from '../../testkit/designs.ts';
import type { Design } from '../../design/schema.ts';
import { loadDarkLine } from './loadDarkLine.ts';

/** One unit on L1 of a three-line supply. */
const oneOfThree = (design: Design): void => {
  threePhase(design, [1, 0, 0]);
  stack1(design).arrangement = 'one-unit';
};

checkTable(loadDarkLine, [
  { name: 'a line with its unit', state: 'nothing' },
  {
    name: 'nothing hangs on the other lines',
    edit: oneOfThree,
    state: 'within',
    says: 'no inverter stands on L2 and L3',
  },
  {
    name: 'a circuit on L2 and a three-phase one are dark',
    edit: (d) => {
      oneOfThree(d);
      addLoad(d, 'Pump', ['L2']);
      addLoad(d, 'Saw', ['L1', 'L2', 'L3']);
    },
    state: 'over',
    value: 2,
    says: 'Pump and Saw are dark',
  },
]);
