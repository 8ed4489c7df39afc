import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, forget, stack1 } from '../../testkit/designs.ts';
import { bankModuleCharge } from './bankModuleCharge.ts';

checkTable(bankModuleCharge, [
  {
    // 50 A · 51.2 V = 2560 W at U = 51.2 V + 12.5 A · (module and lead, about 10 mΩ) + 50 A · 3 mΩ: 49.9 A, a quarter 12.47 A; the
    // first, with no bar segment before it, 0.8 % more.
    name: 'four modules on bars take a quarter of 50 A each, the first a little more',
    state: 'within',
    value: 12.57,
    limit: 50,
    says: 'module 1 takes',
  },
  {
    name: 'two modules taken out: a quarter becomes a half of 2560 W / 51.6 V = 49.6 A',
    edit: (d) =>
      bank1(d)
        .modules.slice(2)
        .forEach((module) => (module.fitted = 'taken-out')),
    state: 'within',
    value: 24.84,
  },
  {
    name: 'one module of four left takes all of 120 A, where its type takes 50',
    edit: (d) => {
      bank1(d)
        .modules.slice(1)
        .forEach((module) => (module.fitted = 'taken-out'));
      stack1(d).chargeCurrentA = 120;
    },
    state: 'over',
    limit: 50,
  },
  {
    name: 'charge setting not known',
    edit: (d) => forget(stack1(d), 'chargeCurrentA'),
    state: 'unknown',
    missing: 'stacks/s/chargeCurrentA',
  },
  { name: 'no battery', edit: (d) => void (stack1(d).bank = 'none'), state: 'nothing' },
]);
