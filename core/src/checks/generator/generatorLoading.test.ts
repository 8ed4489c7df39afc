import type { Design } from '../../design/schema.ts';
import { addLoad, forget, item1, stack1, threePhase } from '../../testkit/designs.ts';
import { withRated } from '../../testkit/wired.ts';
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
    name: '15 kVA at 0.8 gives 12 kW: 8.2 kW and 2 kW of charging are over 0.8 · 12000 = 9600, though 10200 VA are within 12000',
    edit: (d) => {
      withRated(d, { lines: 1, ratedVa: 15000, powerFactor: 0.8 });
      item1(d).runningW = 8200;
    },
    subject: 'g1/engine',
    state: 'over',
    value: 10200,
    limit: 9600,
  },
  {
    name: 'the same on its alternator',
    edit: (d) => {
      withRated(d, { lines: 1, ratedVa: 15000, powerFactor: 0.8 });
      item1(d).runningW = 8200;
    },
    subject: 'g1/L1',
    state: 'within',
    value: 10200,
    limit: 12000,
  },
  {
    name: 'a type that keeps its rating to 1000 m and 40 °C: 1150 m takes 1.5 %, 35 °C nothing: 4000 · 0.985 · 0.8 = 3152',
    edit: (d) => {
      withRated(d, { deratesAboveM: 1000, deratesAboveC: 40 });
      Object.assign(d.site, { altitudeM: 1150, highestC: 35 });
    },
    subject: 'g1/engine',
    state: 'over',
    limit: 3152,
  },
  {
    name: 'an engine of unknown power factor',
    edit: (d) => withRated(d, { powerFactor: undefined }),
    subject: 'g1/engine',
    state: 'unknown',
    missing: 'types/own-set/powerFactor',
  },
  {
    name: 'on its own port the setting of that side counts: 2300 + 500',
    edit: (d) => {
      withSet(d);
      Object.assign(d.generators[0] ?? {}, { connection: 'generator-port' });
      stack1(d).generatorChargeW = 500;
    },
    subject: 'g1/engine',
    state: 'within',
    value: 2800,
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
