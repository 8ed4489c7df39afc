import { variantOf } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { stack1 } from '../../testkit/designs.ts';
import { place, withMeters } from '../../testkit/wired.ts';
import { wiringPorts } from './wiringPorts.ts';

// The 5 kVA unit: backup output 35 A, grid port 40 A.
checkTable(wiringPorts, [
  {
    name: '40 A on an output of 35 A',
    edit: (d) => place(d, 'unit-output', { stackId: 's', unitId: 'u1', ratedA: 40 }),
    state: 'over',
    value: 40,
    limit: 35,
    says: 'the backup output of the unit',
  },
  {
    name: '32 A on an output of 35 A',
    edit: (d) => place(d, 'unit-output', { stackId: 's', unitId: 'u1', ratedA: 32 }),
    state: 'within',
  },
  {
    name: '50 A on a grid port of 40 A',
    edit: (d) => place(d, 'unit-grid', { stackId: 's', unitId: 'u1', ratedA: 50 }),
    state: 'over',
    value: 50,
    limit: 40,
  },
  {
    name: 'a service of 63 A ahead of a transfer device of 40 A',
    edit: (d) => void (stack1(d).transferDeviceTypeId = 'changeover-40a-2p'),
    state: 'over',
    value: 63,
    limit: 40,
  },
  {
    name: 'a unit of another type than its set: what its port bears is not told by the set',
    edit: (d) => {
      Object.assign(stack1(d).units[0] ?? {}, { inverterTypeId: 'hybrid-10k-split' });
      place(d, 'unit-output', { stackId: 's', unitId: 'u1', ratedA: 32 });
    },
    state: 'unknown',
    missing: 'stacks/s/units/u1/inverterTypeId',
  },
  {
    name: 'the type of that unit is in the job: its own port counts',
    edit: (d) => {
      d.types.push(variantOf('inverter', 'hybrid-5k-1ph', { id: 'fellow', backupPortA: 30 }));
      Object.assign(stack1(d).units[0] ?? {}, { inverterTypeId: 'fellow' });
      place(d, 'unit-output', { stackId: 's', unitId: 'u1', ratedA: 32 });
    },
    state: 'over',
    value: 32,
    limit: 30,
  },
  {
    name: '10 A ahead of a meter that stands 6 A',
    edit: (d) => {
      withMeters(d);
      place(d, 'meter-device', { controllerId: 'c', meterId: 'm2', ratedA: 10 });
    },
    state: 'over',
    value: 10,
    limit: 6,
    says: 'Device of load meter is rated 10 A and its meter 6 A',
  },
  {
    name: '10 A ahead of controls that stand 6 A',
    edit: (d) => {
      stack1(d).transferDeviceTypeId = 'transfer-200a-split';
      place(d, 'control-device', { stackId: 's', ratedA: 10 });
    },
    state: 'over',
    value: 10,
    limit: 6,
    says: 'and the controls of its transfer device 6 A',
  },
  { name: 'nothing stated at the ports', state: 'nothing' },
]);
