import { checkTable } from '../../testkit/checkTable.ts';
import { ownDevice, place, threeOnABus } from '../../testkit/wired.ts';
import { wiringLeakage } from './wiringLeakage.ts';

const RCD = 'rcd-40a-30ma-a';

// A unit leaks 3 mA; a device of 30 mA may trip from 0.3 · 30 = 9 mA on.
checkTable(wiringLeakage, [
  {
    name: 'three units leak 9 mA of 9 mA through the isolator of their set',
    edit: (d) => {
      threeOnABus(d);
      place(d, 'grid-isolator', { stackId: 's', typeId: RCD });
    },
    state: 'tight',
    value: 9,
    limit: 9,
  },
  {
    name: 'three units leak 9 mA of 3 mA',
    edit: (d) => {
      threeOnABus(d);
      ownDevice(d, RCD, { residualMa: 10 });
      place(d, 'grid-isolator', { stackId: 's', typeId: 'own' });
    },
    state: 'over',
    value: 9,
    limit: 3,
  },
  {
    name: 'at one unit its own 3 mA alone',
    edit: (d) => {
      threeOnABus(d);
      place(d, 'unit-grid', { stackId: 's', unitId: 'u2', typeId: RCD });
    },
    state: 'within',
    value: 3,
    limit: 9,
  },
  {
    name: 'behind the output it hangs on where neutral and earth are joined: tight at worst',
    edit: (d) => {
      ownDevice(d, RCD, { residualMa: 5 });
      place(d, 'unit-output', { stackId: 's', unitId: 'u1', typeId: 'own' });
    },
    state: 'tight',
    value: 3,
    limit: 1.5,
  },
  { name: 'no residual-current device', state: 'nothing' },
]);
