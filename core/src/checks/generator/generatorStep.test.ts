import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { forget, item1 } from '../../testkit/designs.ts';
import { withRated } from '../../testkit/wired.ts';
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
    name: '8.2 kW onto 0.6 · 12 kW = 7.2 kW is over',
    edit: (d) => {
      withRated(d, { ratedVa: 15000, powerFactor: 0.8 });
      item1(d).runningW = 8200;
    },
    subject: 'g1/engine',
    state: 'over',
    value: 8200,
    limit: 7200,
  },
  {
    name: 'and 8.2 kVA of 0.6 · 15 = 9 kVA is tight',
    edit: (d) => {
      withRated(d, { ratedVa: 15000, powerFactor: 0.8 });
      item1(d).runningW = 8200;
    },
    subject: 'g1/L1',
    state: 'tight',
    value: 8200,
    limit: 9000,
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
