import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, forget, item1 } from '../../testkit/designs.ts';
import { bankDeliverable } from './bankDeliverable.ts';

checkTable(bankDeliverable, [
  { name: 'a bank that can give what is asked has nothing to say', state: 'nothing' },
  {
    // One module on 2 m of 50 mm² and more: R = 51.2² / (4 · 48145 W) = 13.61 mΩ, see the sag of the same bank.
    name: 'one module asked for 100 kW / 0.94 = 106.4 kW gives 51.2² / (4 · 13.6122 mΩ) = 48145 W at most',
    edit: (design) => {
      item1(design).runningW = 100_000;
      bank1(design).modules = [{ id: 'm1' }];
    },
    state: 'over',
    value: 100_000 / 0.94,
    limit: 48144.95,
    says: 'of direct current at the continuous load',
  },
  {
    name: 'a load that is not known is asked for by others',
    edit: (design) => forget(item1(design), 'runningW'),
    state: 'nothing',
  },
  {
    name: 'modules in series are one string',
    edit: (design) => void (bank1(design).batteryTypeId = 'lfp-102v-50ah-stack'),
    state: 'nothing',
  },
]);
