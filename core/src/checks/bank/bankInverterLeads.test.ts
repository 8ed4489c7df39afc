import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, forget, stack1 } from '../../testkit/designs.ts';
import type { Design } from '../../design/schema.ts';
import { bankInverterLeads } from './bankInverterLeads.ts';

const two =
  (lengthM: number | undefined) =>
  (design: Design): void => {
    const stack = stack1(design);
    stack.arrangement = 'parallel-single-phase';
    stack.units = [
      { id: 'u1', firmware: '1', barPlace: 1 },
      {
        id: 'u2',
        firmware: '1',
        barPlace: 2,
        ...(lengthM === undefined ? {} : { batteryLead: { lengthM, areaMm2: 70 } }),
      },
    ];
  };

// 70 mm² at 50 °C: 0.304069 mΩ/m. 1.5 m: 2 · (0.456103 + 0.2) + 0.3 = 1.612207 mΩ. 1.6 m: 1.673021; 1.9 m: 1.855462; 1.51 m: 1.618288
checkTable(bankInverterLeads, [
  { name: 'alike', edit: two(undefined), state: 'within', value: 0, limit: 0.1 },
  { name: '1.51 m beside 1.5 m: 0.38 %', edit: two(1.51), state: 'within', value: 0.0038 },
  { name: '1.6 m beside 1.5 m: 3.8 %', edit: two(1.6), state: 'tight', value: 0.0377 },
  { name: '1.9 m beside 1.5 m: 15.1 %', edit: two(1.9), state: 'over', value: 0.151 },
  { name: 'one inverter has nobody to differ from', state: 'nothing' },
  {
    name: 'leads to banks of their own may differ',
    edit: (design) => {
      two(1.9)(design);
      bank1(design).serves = 'one-unit';
    },
    state: 'nothing',
  },
  {
    name: 'place on the bars not known',
    edit: (design) => {
      two(undefined)(design);
      const unit = stack1(design).units[1];
      if (unit !== undefined) forget(unit, 'barPlace');
    },
    state: 'unknown',
    missing: 'stacks/s/units/u2/barPlace',
  },
]);
