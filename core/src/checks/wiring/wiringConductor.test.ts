import { checkTable } from '../../testkit/checkTable.ts';
import { addLoad, circuit1, item1, stack1 } from '../../testkit/designs.ts';
import { wiringConductor } from './wiringConductor.ts';

// The heater of the base draws 2300 W / 230 V = 10 A; 1.5 mm² PVC clipped direct carries 19.5 A at 30 °C.
checkTable(wiringConductor, [
  {
    name: '10 A in 1.5 mm²',
    edit: (d) => void (circuit1(d).cable = { areaMm2: 1.5 }),
    state: 'within',
    value: 10,
    limit: 19.5,
  },
  {
    name: '20 A in 1.5 mm²',
    edit: (d) => {
      circuit1(d).cable = { areaMm2: 1.5 };
      item1(d).quantity = 2;
    },
    state: 'over',
    value: 20,
    limit: 19.5,
  },
  {
    name: 'bunched with eight others at 40 °C: 19.5 · 0.87 · 0.5 = 8.48 A',
    edit: (d) => {
      circuit1(d).cable = { areaMm2: 1.5 };
      d.wiring = { laying: { grouped: 9, ambientC: 40 } };
    },
    state: 'over',
    limit: 8.48,
  },
  {
    name: 'the cable says otherwise than the job: by itself at 30 °C',
    edit: (d) => {
      circuit1(d).cable = { areaMm2: 1.5 };
      d.wiring = {
        laying: { grouped: 9, ambientC: 40 },
        cables: [{ id: 'w1', lineId: 'circuit c1', grouped: 1, ambientC: 30 }],
      };
    },
    state: 'within',
    limit: 19.5,
  },
  {
    name: 'two in parallel carry twice',
    edit: (d) => {
      circuit1(d).cable = { areaMm2: 1.5 };
      item1(d).quantity = 3;
      d.wiring = { cables: [{ id: 'w1', lineId: 'circuit c1', parallel: 2 }] };
    },
    state: 'within',
    value: 30,
    limit: 39,
  },
  {
    name: 'the output of a unit by what it can give: 5000 VA / 230 V = 21.7 A, 1.5 mm² carries 19.5 A',
    edit: (d) => void Object.assign(stack1(d).units[0] ?? {}, { acLead: { lengthM: 2, areaMm2: 1.5 } }),
    state: 'over',
    value: 21.74,
    says: 'Unit 1, backup output',
  },
  {
    name: 'North American: 1.25 · 4600 / 230 = 25 A of the 20 A that 14 AWG has in its column',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      circuit1(d).cable = { areaMm2: 2.08 };
      item1(d).quantity = 2;
    },
    state: 'over',
    value: 25,
    limit: 20,
    says: 'by the column of its terminals',
  },
  { name: 'no size stated', state: 'nothing' },
  {
    name: 'a load that is not known is asked for as a load',
    edit: (d) => {
      addLoad(d, 'c2', ['L1']);
      Object.assign(d.circuits[1] ?? {}, { cable: { areaMm2: 1.5 }, items: [] });
    },
    state: 'nothing',
  },
]);
