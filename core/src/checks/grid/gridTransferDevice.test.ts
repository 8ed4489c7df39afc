import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { circuit1, heater, stack1, threePhase } from '../../testkit/designs.ts';
import { gridTransferDevice } from './gridTransferDevice.ts';

const withDevice = (d: Design, transferDeviceTypeId = 'changeover-40a-2p'): void =>
  void Object.assign(stack1(d), { transferDeviceTypeId });

checkTable(gridTransferDevice, [
  { name: 'no device', state: 'nothing' },
  {
    name: '(2300 + 2000) / 230 = 18.7 A of 40',
    edit: (d) => withDevice(d),
    state: 'within',
    value: 18.696,
    limit: 40,
  },
  {
    name: 'four heaters: 11200 / 230 = 48.7 A',
    edit: (d) => {
      withDevice(d);
      circuit1(d).items = [heater('i1', { quantity: 4 })];
    },
    state: 'over',
    value: 48.696,
    says: 'which is rated 40 A',
  },
  {
    name: 'a device for one line on three',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      circuit1(d).lines = ['L2'];
      withDevice(d);
    },
    subject: 's/L2',
    state: 'over',
    says: 'switches 1 lines and L2 is not one of them',
  },
  {
    name: 'charging not set',
    edit: (d) => {
      withDevice(d);
      Reflect.deleteProperty(stack1(d), 'gridChargeW');
    },
    state: 'unknown',
    missing: 'stacks/s/gridChargeW',
  },
]);
