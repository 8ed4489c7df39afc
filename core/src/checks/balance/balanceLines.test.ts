import { addLoad, stack1, threePhase } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { balanceLines } from './balanceLines.ts';

const native = (d: Parameters<typeof stack1>[0]): void => {
  d.site.supply = 'three-phase';
  Object.assign(stack1(d), { inverterTypeId: 'hybrid-12k-3ph', arrangement: 'three-phase-native' });
};

checkTable(balanceLines, [
  { name: 'one line has no imbalance', state: 'nothing' },
  {
    name: 'one loaded line of three: (2300 − 0) / 766.7 = 3',
    edit: (d) => threePhase(d, [1, 1, 1]),
    state: 'tight',
    value: 3,
    limit: 3,
  },
  { name: 'the same on a cabinet that takes 0.9', edit: native, state: 'over', value: 3, limit: 0.9 },
  {
    name: 'two of three: 2300 / 1533.3 = 1.5',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'c2', ['L2']);
    },
    state: 'within',
    value: 1.5,
  },
  {
    name: 'all alike',
    edit: (d) => {
      native(d);
      addLoad(d, 'c2', ['L2']);
      addLoad(d, 'c3', ['L3']);
    },
    state: 'within',
    value: 0,
  },
  {
    name: 'a type without a stated limit',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      stack1(d).inverterTypeId = 'hybrid-3k-1ph';
    },
    state: 'unknown',
    missing: 'types/hybrid-3k-1ph/imbalanceLimit',
  },
]);
