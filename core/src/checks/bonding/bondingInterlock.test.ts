import { bonded, variantOf } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { stack1 } from '../../testkit/designs.ts';
import { bondingInterlock } from './bondingInterlock.ts';

checkTable(bondingInterlock, [
  { name: 'nothing to interlock', edit: bonded, state: 'nothing' },
  {
    name: 'a changeover that is interlocked',
    edit: (d) => void (stack1(d).transferDeviceTypeId = 'changeover-63a-4p'),
    subject: 'transfer s',
    state: 'within',
  },
  {
    name: 'a changeover that is not',
    edit: (d) => {
      const type = variantOf('transfer-device', 'changeover-63a-4p', { interlocked: 'no' });
      d.types.push(type);
      stack1(d).transferDeviceTypeId = type.id;
    },
    subject: 'transfer s',
    state: 'over',
  },
  {
    name: 'a bypass that is not interlocked with the inverter',
    edit: (d) => {
      bonded(d);
      Object.assign(d.site, { maintenanceBypass: 'yes', bypassInterlocked: 'no' });
    },
    state: 'over',
  },
  {
    name: 'a bypass of which nobody says it',
    edit: (d) => {
      bonded(d);
      d.site.maintenanceBypass = 'yes';
    },
    state: 'unknown',
    missing: 'site/bypassInterlocked',
  },
]);
