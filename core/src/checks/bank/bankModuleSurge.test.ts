import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, forget, item1 } from '../../testkit/designs.ts';
import { bankModuleSurge } from './bankModuleSurge.ts';

checkTable(bankModuleSurge, [
  {
    // 3 · 2300 VA at pf 1 = 6900 W, / 0.94 = 7340.4 W at about 50.4 V: 145.6 A, 36.4 A in the mean; the one at the inverter 0.9 % more.
    name: 'a start of 6900 W for 5 s from four modules: 36.7 A of 100 A',
    edit: (design) =>
      void Object.assign(item1(design), { startMultiple: 3, startDurationS: 5, startPowerFactor: 1 }),
    state: 'within',
    value: 36.72,
    limit: 100,
  },
  {
    name: 'the same for 20 s is longer than the peak of 15 s: 50 A count',
    edit: (design) =>
      void Object.assign(item1(design), { startMultiple: 3, startDurationS: 20, startPowerFactor: 1 }),
    state: 'within',
    limit: 50,
  },
  {
    name: 'from one module: over its peak',
    edit: (design) => {
      Object.assign(item1(design), { startMultiple: 3, startDurationS: 5, startPowerFactor: 1 });
      bank1(design).modules = [{ id: 'm1' }];
    },
    state: 'over',
    limit: 100,
  },
  {
    name: 'joining not known',
    edit: (design) => forget(bank1(design), 'joining'),
    state: 'unknown',
    missing: 'stacks/s/bank/joining',
  },
]);
