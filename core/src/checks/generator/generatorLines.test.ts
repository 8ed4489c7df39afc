import { checkTable } from '../../testkit/checkTable.ts';
import { withSet } from '../../testkit/wired.ts';
import { addLoad, circuit1, forget, threePhase } from '../../testkit/designs.ts';
import { generatorLines } from './generatorLines.ts';

checkTable(generatorLines, [
  { name: 'one line on one line', edit: (d) => withSet(d), state: 'within' },
  {
    name: 'one line of three: what hangs on the others runs from the battery',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      withSet(d, 'petrol-4k-1ph', 'L2');
      addLoad(d, 'c2', ['L2']);
    },
    state: 'tight',
    says: 'supplies L2 only; on the battery: Heat',
  },
  {
    name: 'a generator-only circuit on another line is dark',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      withSet(d, 'petrol-4k-1ph', 'L2');
      d.partitions.push({ id: 'go', name: 'Only with the set', kind: 'generator-only', stackId: 's' });
      d.circuits.push({ id: 'c3', name: 'Dryer', lines: ['L3'], partitionId: 'go', items: [] });
    },
    state: 'over',
    says: 'Dryer is dark while it runs; on the battery: Heat',
  },
  {
    name: 'line not chosen',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      withSet(d);
    },
    state: 'unknown',
    missing: 'generators/g1/line',
  },
  {
    name: 'a circuit whose line nobody has said may be dark',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      withSet(d, 'petrol-4k-1ph', 'L2');
      forget(circuit1(d), 'lines');
    },
    state: 'unknown',
    missing: 'circuits/c1/lines',
  },
]);
