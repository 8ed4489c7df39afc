import { addLoad, bank1, forget, item1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bankSurgeCurrent } from './bankSurgeCurrent.ts';

const pump = { runningW: 500, powerFactor: 0.5, startClass: 'deep-pump' } as const;

checkTable(bankSurgeCurrent, [
  { name: 'nothing starts', state: 'nothing' },
  {
    name: '(2300 + 3000) / (0.94 · 51.2) = 110.1 A of 4 · 100 / 1.1 = 363.6',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], pump);
      forget(bank1(d), 'joining');
    },
    state: 'within',
    value: 110.12,
    limit: 363.64,
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
