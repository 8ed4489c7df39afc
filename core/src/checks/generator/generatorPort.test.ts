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
