import { bank1, forget, stack1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bankCharge } from './bankCharge.ts';

checkTable(bankCharge, [
  {
    name: '50 A of 100 (the inverter), the bank takes 200',
    state: 'within',
    value: 50,
    limit: 100,
    says: 'the inverters',
  },
  {
    name: 'exactly the limit is allowed',
    edit: (d) => void (stack1(d).chargeCurrentA = 100),
    state: 'within',
    value: 100,
  },
  {
    name: 'one module takes 50 A',
    edit: (d) => {
      bank1(d).modules.splice(1);
      stack1(d).chargeCurrentA = 60;
    },
    state: 'over',
    limit: 50,
    says: 'the bank',
  },
  {
    name: 'two units with a bank each: 60 A into the 50 A of one module',
    edit: (d) => {
      bank1(d).modules.splice(1);
      bank1(d).serves = 'one-unit';
      Object.assign(stack1(d), { chargeCurrentA: 60, units: [{ id: 'u1' }, { id: 'u2' }] });
    },
    state: 'over',
    value: 60,
    limit: 50,
  },
  {
    name: '2560 W from the generator at 51.2 V are 50 A, 3000 W are 58.6 A into the 50 A of one module',
    edit: (d) => {
      bank1(d).modules.splice(1);
      Object.assign(stack1(d), { chargeCurrentA: 40, generatorChargeW: 3000 });
    },
    state: 'over',
    value: 58.59,
    limit: 50,
    says: 'charging from the generator may reach 58.6 A',
  },
  {
    name: 'not stated',
    edit: (d) => forget(stack1(d), 'chargeCurrentA'),
    state: 'unknown',
    missing: 'stacks/s/chargeCurrentA',
  },
]);
