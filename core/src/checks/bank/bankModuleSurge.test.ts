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
    // 53.3 and 52.1 V over 13.263 mΩ each: 45.2 A from the one into the other at rest. Both as one source: 52.7 V, 6.63 + 1.61 mΩ;
    // 7340.4 W draw (52.7 − √(52.7² − 4 · 8.244 mΩ · 7340.4)) / 16.49 mΩ = 142.5 A; 71.2 + 45.2 = 116.5 A. Nearly empty it is half of 149 A.
    name: 'two modules at 90 and 30 %: the fuller one gives 116 A of 100 A',
    edit: (design) => {
      Object.assign(item1(design), { startMultiple: 3, startDurationS: 5, startPowerFactor: 1 });
      bank1(design).modules = [
        { id: 'm1', stateOfCharge: 0.9 },
        { id: 'm2', stateOfCharge: 0.3 },
      ];
    },
    state: 'over',
    value: 116.5,
  },
  {
    name: 'joining not known',
    edit: (design) => forget(bank1(design), 'joining'),
    state: 'unknown',
    missing: 'stacks/s/bank/joining',
  },
]);
