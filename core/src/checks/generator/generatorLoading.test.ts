import type { Design } from '../../design/schema.ts';
import { addLoad, forget, threePhase } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { generatorLoading } from './generatorLoading.ts';

const withSet = (d: Design, typeId = 'petrol-4k-1ph'): void =>
  void d.generators.push({ id: 'g1', name: 'Set', typeId, connection: 'transfer-switch', stackId: 's' });

checkTable(generatorLoading, [
  { name: '4300 of 0.8 · 4000 = 3200', edit: (d) => withSet(d), state: 'over', value: 4300, limit: 3200 },
  {
    name: 'without charging 2300 of 3200',
    edit: (d) => {
      withSet(d);
      Object.assign(d.stacks[0] ?? {}, { gridChargeW: 0 });
    },
    state: 'within',
    value: 2300,
  },
  {
    name: '1150 m: 1 − 0.01 · 1000 / 100 = 0.9; 35 °C: 1 − 0.02 · 10 / 5 = 0.96; 4000 · 0.864 · 0.8 = 2764.8',
    edit: (d) => {
      withSet(d);
      d.site.altitudeM = 1150;
      d.site.highestC = 35;
    },
    state: 'over',
    limit: 2764.8,
  },
  {
    name: 'a three-phase set gives a third on each line: 20000 / 3 · 0.8 = 5333.3',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'c2', ['L2']);
      withSet(d, 'diesel-20k-3ph');
    },
    subject: 'g1/L2',
    state: 'within',
    value: 4300,
    limit: 5333.3,
  },
  {
    name: 'no altitude',
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
      const g = d.generators[0];
      if (g !== undefined) forget(g, 'stackId');
    },
    state: 'unknown',
    missing: 'generators/g1/stackId',
  },
]);
