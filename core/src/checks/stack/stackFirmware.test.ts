import { stack1, threePhase } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { stackFirmware } from './stackFirmware.ts';

checkTable(stackFirmware, [
  { name: 'one unit has nobody to differ from', state: 'nothing' },
  { name: 'all the same', edit: (d) => threePhase(d, [1, 1, 1]), state: 'within' },
  {
    name: 'one differs',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      Object.assign(stack1(d).units[1] ?? {}, { firmware: '2' });
    },
    state: 'over',
    value: 2,
    says: '1, 2',
  },
  {
    name: 'one not recorded',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      Reflect.deleteProperty(stack1(d).units[1] ?? {}, 'firmware');
    },
    state: 'unknown',
    missing: 'stacks/s/units/L2-1/firmware',
  },
]);
