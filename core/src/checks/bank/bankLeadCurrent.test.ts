import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, circuit1, heater } from '../../testkit/designs.ts';
import { bankLeadCurrent } from './bankLeadCurrent.ts';

checkTable(bankLeadCurrent, [
  {
    name: '2300 / (0.94 · 44.8) = 54.6 A; 70 mm² clipped direct carries 213 A at 30 °C',
    state: 'within',
    value: 54.62,
    limit: 213,
  },
  {
    name: 'the same at 45 °C: factor 0.79 → 168.3 A',
    edit: (d) => void (d.site.equipmentHighestC = 45),
    state: 'within',
    limit: 168.27,
  },
  {
    name: 'North American: 70 mm² counts as 2/0 (67.4 mm²), 175 A at 75 °C; over 1.25 = 140',
    edit: (d) => void (d.site.codeProfile = 'north-american'),
    state: 'within',
    limit: 140,
  },
  {
    name: '6 mm² carries 46 A of 54.6',
    edit: (d) => void (bank1(d).inverterLead = { lengthM: 1.5, areaMm2: 6 }),
    state: 'over',
    limit: 46,
  },
  {
    name: 'size not said',
    edit: (d) => void (bank1(d).inverterLead = { lengthM: 1.5 }),
    state: 'unknown',
    missing: 'stacks/s/bank/inverterLead/areaMm2',
  },
  {
    name: 'load doubled',
    edit: (d) => void (circuit1(d).items = [heater('i1', { quantity: 2 })]),
    state: 'within',
    value: 109.23,
  },
]);
