import type { Design } from '../../design/schema.ts';
import { item1, stack1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { generatorPort } from './generatorPort.ts';

const withSet = (d: Design): void =>
  void d.generators.push({
    id: 'g1',
    name: 'Set',
    typeId: 'petrol-4k-1ph',
    connection: 'generator-port',
    stackId: 's',
  });

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
  },
]);
