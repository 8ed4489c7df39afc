import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { addLoad, bank1, forget, item1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bankSurgeCurrent } from './bankSurgeCurrent.ts';

const moduleType = () => {
  const found = SAMPLE_TYPES.find((type) => type.id === 'lfp-51v-100ah');
  if (found?.kind !== 'battery') throw new Error('It is a sample.');
  return found;
};
const pump = { runningW: 500, powerFactor: 0.5, startClass: 'deep-pump' } as const;

checkTable(bankSurgeCurrent, [
  { name: 'nothing starts', state: 'nothing' },
  {
    name: 'how the bank is joined is not known: at most (2300 + 3000) / (0.94 · 44.8) = 125.9 A, within 4 · 100 / 1.1 = 363.6',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], pump);
      forget(bank1(d), 'joining');
    },
    state: 'within',
    value: 125.85,
    limit: 363.64,
  },
  {
    name: 'between 110.1 and 125.9 A with a limit of 120 A: only the network can tell',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], pump);
      forget(bank1(d), 'joining');
      d.types.push({ ...moduleType(), peakDischargeA: 33, continuousDischargeA: 33, id: 'weak' });
      bank1(d).batteryTypeId = 'weak';
    },
    state: 'unknown',
    value: 110.12,
    missing: 'stacks/s/bank/joining',
  },
  {
    name: 'solved on the network: 5638 W from 51.2 V behind 4.94 mΩ are 111.3 A',
    edit: (d) => addLoad(d, 'c2', ['L1'], pump),
    state: 'within',
    value: 111.3,
  },
  {
    name: 'longer than the 15 s peak: the continuous 4 · 50 / 1.1 = 181.8 counts',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], { ...pump, startMultiple: 6, startDurationS: 20, startPowerFactor: 0.5 });
      forget(bank1(d), 'joining');
    },
    state: 'within',
    limit: 181.82,
  },
  {
    name: 'one module: 100 A',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], pump);
      bank1(d).modules.splice(1);
    },
    state: 'over',
    limit: 100,
  },
  {
    name: 'start not known',
    edit: (d) => void Reflect.deleteProperty(item1(d), 'startClass'),
    state: 'unknown',
    missing: 'circuits/c1/items/i1/startClass',
  },
]);
