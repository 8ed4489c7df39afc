import { bank1, forget, stack1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bankWindow } from './bankWindow.ts';

const series =
  (n: number) =>
  (d: Parameters<typeof stack1>[0]): void => {
    stack1(d).inverterTypeId = 'hybrid-11k-240-hv';
    Object.assign(bank1(d), {
      batteryTypeId: 'lfp-102v-50ah-stack',
      modules: Array.from({ length: n }, (_, i) => ({ id: `m${i}` })),
    });
  };

checkTable(bankWindow, [
  { name: '44.8 to 57.6 V in 40 to 60 V', state: 'within' },
  { name: 'four in series: 358.4 to 460.8 V in 300 to 500 V', edit: series(4), state: 'within' },
  { name: 'five in series reach 576 V', edit: series(5), state: 'over', value: 576, limit: 500 },
  { name: 'three in series sink to 268.8 V', edit: series(3), state: 'over', value: 268.8, limit: 300 },
  { name: 'no battery: nothing to say', edit: (d) => void (stack1(d).bank = 'none'), state: 'nothing' },
  {
    name: 'no battery type',
    edit: (d) => forget(bank1(d), 'batteryTypeId'),
    state: 'unknown',
    missing: 'stacks/s/bank/batteryTypeId',
  },
]);
