import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, circuit1, item1 } from '../../testkit/designs.ts';
import { wiringDrop } from './wiringDrop.ts';

// 2.5 mm² at 70 °C: 7.41 · 1.1965 = 8.866 mΩ/m. 10 A over 40 m: 2 · 40 · 10 · 0.008866 = 7.09 V of 230 V = 3.08 %.
checkTable(wiringDrop, [
  {
    name: '3.08 % of the 5 % of a circuit',
    edit: (d) => void (circuit1(d).cable = { areaMm2: 2.5, lengthM: 40 }),
    state: 'within',
    subject: 'network',
    value: 0.0308,
  },
  {
    name: 'the same as lighting, which may lose 3 %',
    edit: (d) => {
      circuit1(d).cable = { areaMm2: 2.5, lengthM: 40 };
      d.wiring = { cables: [{ id: 'w1', lineId: 'circuit c1', serves: 'lighting' }] };
    },
    state: 'over',
    subject: 'circuit c1',
    limit: 0.03,
  },
  {
    // 42 m: 2 · 42 · 10 · 0.008866 = 7.447 V = 3.238 %
    name: 'what is left at its ends is conductor too: 40 m and 2 m',
    edit: (d) => {
      circuit1(d).cable = { areaMm2: 2.5, lengthM: 40 };
      d.wiring = { cables: [{ id: 'w1', lineId: 'circuit c1', serves: 'lighting', serviceLoopM: 2 }] };
    },
    state: 'over',
    subject: 'circuit c1',
    value: 0.03238,
  },
  {
    name: 'an own limit of 6 % on 5.4 %',
    edit: (d) => {
      circuit1(d).cable = { areaMm2: 2.5, lengthM: 70 };
      d.wiring = { cables: [{ id: 'w1', lineId: 'circuit c1', dropLimit: 0.06 }] };
    },
    state: 'within',
  },
  {
    // 1.5 mm²: 2 · 60 · 60 A · (14.478 · 0.5 + 0.08 · 0.866) mΩ = 52.6 V: 23 %; running 10 A: 7.6 %.
    name: 'a compressor that starts with six times its current',
    edit: (d) => {
      circuit1(d).cable = { areaMm2: 2.5, lengthM: 60 };
      item1(d).startClass = 'compressor';
    },
    state: 'over',
    subject: 'circuit c1',
    says: 'while it starts',
  },
  {
    // 5000 / (0.94 · 44.8) = 118.7 A over 10 m of 70 mm²: 2 · 10 · 118.7 · 0.3254 mΩ = 0.773 V of 44.8 V = 1.7 %.
    name: 'battery leads of 10 m',
    edit: (d) => void (bank1(d).inverterLead = { lengthM: 10, areaMm2: 70 }),
    state: 'over',
    value: 0.0172,
    limit: 0.01,
    says: 'battery port',
  },
]);
