import type { Design } from '../../design/schema.ts';
import { addLoad, item1, stack1, threePhase } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { generatorPort } from './generatorPort.ts';

const withSet = (d: Design): void => {
  stack1(d).generatorChargeW = 2000;
  void d.generators.push({
    id: 'g1',
    name: 'Set',
    typeId: 'petrol-4k-1ph',
    connection: 'generator-port',
    stackId: 's',
  });
};

checkTable(generatorPort, [
  { name: '4300 / 230 = 18.7 of 35', edit: withSet, state: 'within', value: 18.7, limit: 35 },
  {
    name: 'three heaters: 38.7',
    edit: (d) => {
      withSet(d);
      item1(d).quantity = 3;
    },
    state: 'over',
    value: 38.7,
  },
  {
    name: 'a type without a generator port takes nothing there',
    edit: (d) => {
      withSet(d);
      stack1(d).inverterTypeId = 'hybrid-3k-1ph';
    },
    state: 'over',
    limit: 0,
    says: 'its inverters have no such port and take 0 A',
  },
  {
    // (1000 + 2000) / 230 = 13.0 A of the second set alone; the first has no generator port at all.
    name: 'a set that it does not feed has no part in it',
    edit: (d) => {
      withSet(d);
      d.stacks.push({ ...stack1(d), id: 't', name: 'Second' });
      stack1(d).inverterTypeId = 'hybrid-3k-1ph';
      Object.assign(d.generators[0] ?? {}, { stackId: 't' });
      addLoad(d, 'c2', ['L1'], { runningW: 1000 });
      d.partitions.push({ id: 'b2', name: 'Second board', kind: 'backup', stackId: 't' });
      Object.assign(d.circuits[1] ?? {}, { partitionId: 'b2' });
    },
    state: 'within',
    value: 13.04,
  },
  {
    name: 'a set on L2 of three: L1 and L3 are not its load',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'c2', ['L2'], { runningW: 1150 });
      withSet(d);
      Object.assign(d.generators[0] ?? {}, { line: 'L2' });
    },
    subject: 's/L2',
    state: 'within',
    value: (1150 + 2000) / 230,
  },
  {
    name: 'the line is not chosen',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      withSet(d);
    },
    state: 'unknown',
    missing: 'generators/g1/line',
  },
]);
