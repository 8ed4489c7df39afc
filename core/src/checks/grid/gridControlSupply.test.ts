import type { Design } from '../../design/schema.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { stack1 } from '../../testkit/designs.ts';
import { gridControlSupply } from './gridControlSupply.ts';

/** A device whose controls take 36 VA at 24 V from an inverter whose output gives 24 V and 2 A, with changes. */
const fed =
  (device: object = {}, inverter: object = {}) =>
  (design: Design): void => {
    design.types.push(
      variantOf('transfer-device', 'transfer-200a-split', {
        id: 'own',
        controlSupply: 'from-inverter',
        controlCurrent: 'dc',
        controlV: 24,
        controlVa: 36,
        ...device,
      }),
      variantOf('inverter', 'hybrid-5k-1ph', {
        id: 'variant',
        controlOutV: 24,
        controlOutCurrent: 'dc',
        controlOutA: 2,
        ...inverter,
      }),
    );
    Object.assign(stack1(design), { transferDeviceTypeId: 'own', inverterTypeId: 'variant' });
  };

checkTable(gridControlSupply, [
  { name: 'none', state: 'nothing' },
  { name: 'worked by hand', edit: fed({ control: 'hand' }), state: 'nothing' },
  { name: 'fed from the board', edit: fed({ controlSupply: 'from-board' }), state: 'nothing' },
  { name: '36 VA / 24 V = 1.5 A of 2 A', edit: fed(), state: 'within', says: '1.5 of 2 A at 24 V' },
  {
    name: '48 VA / 24 V = 2 A, all that the output gives',
    edit: fed({ controlVa: 48 }),
    state: 'within',
    says: '2 of 2 A at 24 V',
  },
  {
    name: '60 VA / 24 V = 2.5 A, and the output gives 2 A',
    edit: fed({ controlVa: 60 }),
    state: 'over',
    says: 'take 2.5 A, and the output of the inverter for them gives 2 A',
  },
  {
    name: 'a coil of 24 V on 12 V does not close',
    edit: fed({}, { controlOutV: 12, controlOutA: 10 }),
    state: 'over',
    says: 'are for 24 V, and the output of the inverter for them gives 12 V',
  },
  {
    name: '26 V on a coil of 24 V lie below 110 %: 26.4 V',
    edit: fed({}, { controlOutV: 26 }),
    state: 'within',
  },
  { name: '27 V lie above', edit: fed({}, { controlOutV: 27 }), state: 'over', says: 'gives 27 V' },
  { name: '20.5 V lie above 85 %: 20.4 V', edit: fed({}, { controlOutV: 20.5 }), state: 'within' },
  { name: '20.3 V lie below', edit: fed({}, { controlOutV: 20.3 }), state: 'over', says: 'gives 20.3 V' },
  {
    name: 'a coil for DC on an AC output',
    edit: fed({}, { controlOutCurrent: 'ac' }),
    state: 'over',
    says: 'take DC, and the output of the inverter for them gives AC',
  },
  {
    name: 'whether its coil is for AC or DC is not known',
    edit: fed({ controlCurrent: undefined }),
    state: 'unknown',
    missing: 'types/own/controlCurrent',
  },
  {
    name: 'what the output gives is not known',
    edit: fed({}, { controlOutA: undefined }),
    state: 'unknown',
    missing: 'types/variant/controlOutA',
  },
  {
    name: 'what the controls take is stated in part',
    edit: fed({ controlVa: undefined }),
    state: 'unknown',
    missing: 'types/own/controlVa',
  },
  {
    name: 'nothing is stated of the controls: the cable asks',
    edit: fed({ controlV: undefined, controlVa: undefined }),
    state: 'nothing',
  },
]);
