import { variantOf } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { circuit1, stack1 } from '../../testkit/designs.ts';
import { ownDevice, place } from '../../testkit/wired.ts';
import { wiringResidual } from './wiringResidual.ts';

const RCD = 'rcd-40a-30ma-a';

// The 5 kVA unit wants type A.
checkTable(wiringResidual, [
  {
    name: 'type AC where A is wanted',
    edit: (d) => {
      ownDevice(d, RCD, { residualType: 'AC' });
      circuit1(d).device = { typeId: 'own' };
    },
    state: 'over',
    value: 1,
    limit: 2,
    says: 'type AC and the inverter wants type A',
  },
  {
    name: 'type A where A is wanted',
    edit: (d) => void (circuit1(d).device = { typeId: RCD }),
    state: 'within',
  },
  {
    name: 'type B sees more than A',
    edit: (d) => {
      ownDevice(d, RCD, { residualType: 'B' });
      circuit1(d).device = { typeId: 'own' };
    },
    state: 'within',
  },
  {
    name: 'a type that does not say what it sees',
    edit: (d) => {
      ownDevice(d, RCD, {});
      const own = d.types.at(-1);
      if (own !== undefined) Reflect.deleteProperty(own, 'residualType');
      circuit1(d).device = { typeId: 'own' };
    },
    state: 'unknown',
    missing: 'types/own/residualType',
  },
  {
    name: 'on the grid side no inverter feeds it',
    edit: (d) => {
      ownDevice(d, RCD, { residualType: 'AC' });
      circuit1(d).partitionId = 'g';
      circuit1(d).device = { typeId: 'own' };
    },
    state: 'nothing',
  },
  {
    name: 'ahead of a unit that wants B',
    edit: (d) => {
      stack1(d).inverterTypeId = 'hybrid-11k-240-hv';
      place(d, 'grid-isolator', { stackId: 's', typeId: RCD });
    },
    state: 'over',
    value: 2,
    limit: 4,
  },
  {
    name: 'a fellow unit of the set wants more than the first',
    edit: (d) => {
      d.types.push(variantOf('inverter', 'hybrid-5k-1ph', { id: 'fellow', residualDevice: 'B' }));
      stack1(d).units.push({ id: 'u2', inverterTypeId: 'fellow' });
      circuit1(d).device = { typeId: RCD };
    },
    state: 'over',
    value: 2,
    limit: 4,
    says: 'the inverter wants type B',
  },
  {
    name: 'what a fellow wants is not stated, and type A is enough for the others',
    edit: (d) => {
      const { residualDevice: _, ...bare } = variantOf('inverter', 'hybrid-5k-1ph', { id: 'fellow' });
      d.types.push(bare);
      stack1(d).units.push({ id: 'u2', inverterTypeId: 'fellow' });
      circuit1(d).device = { typeId: RCD };
    },
    state: 'unknown',
    missing: 'types/fellow/residualDevice',
  },
]);
