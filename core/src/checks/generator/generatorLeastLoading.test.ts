import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { forget, item1 } from '../../testkit/designs.ts';
import { generatorLeastLoading } from './generatorLeastLoading.ts';

const withSet = (d: Design): void =>
  void d.generators.push({
    id: 'g1',
    name: 'Set',
    typeId: 'petrol-4k-1ph',
    connection: 'transfer-switch',
    stackId: 's',
  });

checkTable(generatorLeastLoading, [
  {
    name: '2300 W for 12 of 24 hours is 1150 W; 0.3 · 4000 = 1200',
    edit: withSet,
    state: 'tight',
    value: 1150,
    limit: 1200,
  },
  {
    name: 'for 18 hours 1725 W',
    edit: (d) => {
      withSet(d);
      item1(d).hoursPerDay = 18;
    },
    state: 'within',
    value: 1725,
  },
  {
    name: 'hours not known',
    edit: (d) => {
      withSet(d);
      forget(item1(d), 'hoursPerDay');
    },
    state: 'unknown',
    missing: 'circuits/c1/items/i1/hoursPerDay',
  },
]);
