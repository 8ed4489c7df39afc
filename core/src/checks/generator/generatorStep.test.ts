import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { forget, item1 } from '../../testkit/designs.ts';
import { generatorStep } from './generatorStep.ts';

const withSet = (d: Design, typeId = 'petrol-4k-1ph'): void =>
  void d.generators.push({ id: 'g1', name: 'Set', typeId, connection: 'transfer-switch', stackId: 's' });

checkTable(generatorStep, [
  {
    name: '2300 VA at once of 0.6 · 4000 = 2400',
    edit: (d) => withSet(d),
    state: 'tight',
    value: 2300,
    limit: 2400,
  },
  {
    name: 'a larger load: stage it',
    edit: (d) => {
      withSet(d);
      item1(d).runningW = 3000;
    },
    state: 'over',
    value: 3000,
    says: 'in stages',
  },
  {
    name: 'altitude not known',
    edit: (d) => {
      withSet(d);
      forget(d.site, 'altitudeM');
    },
    state: 'unknown',
    missing: 'site/altitudeM',
  },
  {
    name: 'feeds nothing yet',
    edit: (d) => {
      withSet(d);
      const [set] = d.generators;
      if (set !== undefined) forget(set, 'stackId');
    },
    state: 'unknown',
    missing: 'generators/g1/stackId',
  },
]);
