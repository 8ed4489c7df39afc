import { checkTable } from '../../testkit/checkTable.ts';
import { stack1 } from '../../testkit/designs.ts';
import { stackBatteryProfile } from './stackBatteryProfile.ts';

const units = (...profiles: readonly (string | undefined)[]) =>
  profiles.map((batteryProfile, index) => ({
    id: `u${index + 1}`,
    ...(batteryProfile === undefined ? {} : { batteryProfile }),
  }));

checkTable(stackBatteryProfile, [
  { name: 'one unit', state: 'nothing' },
  { name: 'the same on both', edit: (d) => void (stack1(d).units = units('rack', 'rack')), state: 'within' },
  {
    name: 'different',
    edit: (d) => void (stack1(d).units = units('rack', 'lead')),
    state: 'over',
    says: '2 different battery settings are loaded: rack, lead',
  },
  {
    name: 'one not recorded',
    edit: (d) => void (stack1(d).units = units('rack', undefined)),
    state: 'unknown',
    missing: 'stacks/s/units/u2/batteryProfile',
  },
  {
    name: 'no bank, nothing to set',
    edit: (d) => void Object.assign(stack1(d), { units: units('rack', 'lead'), bank: 'none' }),
    state: 'nothing',
  },
]);
