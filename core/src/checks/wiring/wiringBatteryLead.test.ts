import { checkTable } from '../../testkit/checkTable.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { bank1, forget, stack1 } from '../../testkit/designs.ts';
import { wiringBatteryLead } from './wiringBatteryLead.ts';

// 5 kW from 16 cells at 2.8 V: 5000 / (0.94 · 44.8) = 118.73 A, though the heater on it asks for a fraction of that.
checkTable(wiringBatteryLead, [
  // IEC table B.52.4, method C, two loaded, 70 mm²: 213 A.
  { name: '70 mm² for 5 kW', state: 'within', value: 118.73, limit: 213 },
  {
    // 112 A in the same row.
    name: '25 mm²: enough for the heater, too thin for the inverter',
    edit: (d) => void (bank1(d).inverterLead = { lengthM: 1.5, areaMm2: 25 }),
    state: 'over',
    value: 118.73,
    limit: 112,
    says: 'at full power and the lowest voltage',
  },
  {
    // 138 A beside a charge setting of 140 A.
    name: 'a charge setting above what it draws',
    edit: (d) => {
      bank1(d).inverterLead = { lengthM: 1.5, areaMm2: 35 };
      stack1(d).chargeCurrentA = 140;
    },
    state: 'over',
    value: 140,
    limit: 138,
  },
  {
    // 1.25 · 118.73 = 148.4 A; 1/0 AWG carries 150 A in the column of 75 °C.
    name: '1/0 AWG where a lasting load counts 1.25 times',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      bank1(d).inverterLead = { lengthM: 1.5, areaMm2: 53.5 };
    },
    state: 'within',
    value: 148.41,
    limit: 150,
  },
  {
    name: '1 AWG there',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      bank1(d).inverterLead = { lengthM: 1.5, areaMm2: 42.4 };
    },
    state: 'over',
    value: 148.41,
    limit: 130,
    says: 'by the column of its terminals',
  },
  {
    // 10 m of 2.5 mm² are most of the resistance on the way: 118.73 A / 4 modules = 29.68 A, beside 27 A in the same row of the table.
    name: 'leads of four modules that carry the heater and not the inverter',
    edit: (d) => void (bank1(d).lead = { lengthM: 10, areaMm2: 2.5 }),
    state: 'over',
    value: 29.68,
    limit: 27,
  },
  {
    // 118.73 A / 2 = 59.4 A, but a module gives 50 A for good. 6 mm² carry 46 A.
    name: 'two modules: no lead carries more than its module gives',
    edit: (d) => {
      bank1(d).modules.length = 2;
      bank1(d).lead = { lengthM: 1, areaMm2: 6 };
    },
    state: 'over',
    value: 50,
    limit: 46,
  },
  {
    // 1.25 · 50 A = 62.5 A; 8 AWG carries 50 A in the column of 75 °C.
    name: 'their leads by the column of their terminals',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      bank1(d).modules.length = 2;
      bank1(d).lead = { lengthM: 1, areaMm2: 8.37 };
    },
    state: 'over',
    value: 62.5,
    limit: 50,
    says: 'by the column of its terminals',
  },
  {
    // Three times 118.73 A over four modules is 89.0 A, and they give 50 A: the module of the first place, where the inverters are joined.
    name: 'a unit more does not ask more of a module than it gives',
    edit: (d) => {
      stack1(d).units.push({ id: 'u2', firmware: '1', barPlace: 1 });
      bank1(d).lead = { lengthM: 1, areaMm2: 6 };
    },
    state: 'over',
    value: 50,
    limit: 46,
  },
  {
    // A unit of 5 kW and one of 10 kW on modules of 140 A: (118.73 + 237.46) A / 4 = 89.05 A. 16 mm² carry 85 A.
    name: 'each unit by its own type',
    edit: (d) => {
      const type = variantOf('inverter', 'hybrid-5k-1ph', { ratedW: 10_000, ratedVa: 10_000 });
      d.types.push(type);
      stack1(d).units.push({ id: 'u2', firmware: '1', barPlace: 1, inverterTypeId: type.id });
      Object.assign(bank1(d), {
        batteryTypeId: 'lfp-51v-280ah',
        lead: { lengthM: 10, areaMm2: 16 },
        inverterLead: { lengthM: 1, areaMm2: 240 },
      });
    },
    state: 'over',
    value: 89.05,
    limit: 85,
  },
  {
    name: 'a lead that nobody has stated',
    edit: (d) => forget(bank1(d), 'inverterLead'),
    state: 'nothing',
  },
  {
    name: 'no battery type: what flows is not known',
    edit: (d) => forget(bank1(d), 'batteryTypeId'),
    state: 'unknown',
    missing: 'stacks/s/bank/batteryTypeId',
  },
]);
