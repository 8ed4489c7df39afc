import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, forget } from '../../testkit/designs.ts';
import { bankModuleCurrent } from './bankModuleCurrent.ts';

checkTable(bankModuleCurrent, [
  {
    // 2300 / 0.94 = 2446.8 W at about 51 V: 47.9 A from four modules, a little more from the one at the inverter.
    name: '2300 W from four modules: about 12 A each of 50 A',
    state: 'within',
    value: 12.1,
    limit: 50,
  },
  {
    // 2446.8 W from one module: I = (51.2 − √(51.2² − 4 · 0.013612 · 2446.8)) / (2 · 0.013612) = 48.4 A
    name: 'the same from one module: 48.4 A of 50 A',
    edit: (design) => {
      bank1(design).modules = [{ id: 'm1' }];
    },
    state: 'tight',
    value: 48.4,
    limit: 50,
  },
  {
    name: 'and from one smaller module: over',
    edit: (design) => {
      const bank = bank1(design);
      bank.modules = [{ id: 'm1', batteryTypeId: 'lfp-51v-50ah' }];
    },
    state: 'over',
    limit: 25,
  },
  {
    name: 'leads not known',
    edit: (design) => forget(bank1(design), 'lead'),
    state: 'unknown',
    missing: 'stacks/s/bank/lead',
  },
]);
