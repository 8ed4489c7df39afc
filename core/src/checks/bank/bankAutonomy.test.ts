import { bank1, forget, item1, stack1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bankAutonomy } from './bankAutonomy.ts';

checkTable(bankAutonomy, [
  {
    // 4 · 100 Ah · 51.2 V · (0.5 − 0.1) = 8192 Wh; 2300 W · 12 / 24 = 1150 W; 1150 / 0.94 + 50 = 1273.4 W
    name: '8192 / 1273.4 = 6.43 h from the reserve, 18432 / 1273.4 = 14.5 from full',
    state: 'within',
    value: 6.433,
    limit: 4,
    says: 'From full: 14.5 h.',
  },
  {
    name: 'what the type leaves unusable is the floor when the cut-off is lower',
    edit: (d) => void (bank1(d).cutoffSoc = 0),
    state: 'within',
    value: 6.433,
  },
  {
    name: 'all day: 2300 / 0.94 + 50 = 2496.8 W: 3.28 h',
    edit: (d) => void (item1(d).hoursPerDay = 24),
    state: 'over',
    value: 3.281,
  },
  {
    name: 'a reserve at the cut-off gives nothing',
    edit: (d) => void (bank1(d).reserveSoc = 0.1),
    state: 'over',
    value: 0,
  },
  {
    // From 18:00 to 22:00 all four hours at 2300 / 0.94 + 50 = 2496.8 W: 8192 / 2496.8 = 3.28 h. From 0:00 the first 18 h take
    // 50 W (900 Wh), the rest 7292 / 2496.8 = 2.92 h. The average: 2300 · 4 / 24 = 383.3 W, 8192 / (407.8 + 50) = 17.9 h.
    name: 'a heater that runs from 18 to 22: the worst start is 18:00, and the average would promise 17.9 h',
    edit: (d) => {
      Object.assign(item1(d), { runsFromH: 18, runsToH: 22, hoursPerDay: 4 });
      d.site.outageStartH = 0;
    },
    state: 'over',
    value: 3.281,
    says: 'begins at 18:00, the worst hour; 4 h are asked for. From 00:00: 20.9 h; at the average load: 17.9 h',
  },
  {
    // 2 of 4 hours: 1150 W in the window; 1150 / 0.94 + 50 = 1273.4 W for 4 h take 5093.6 Wh, the 3098.4 Wh left last 62 h of 20
    // quiet hours at 50 W (1000 Wh) a day: 20 h + 4 h at 1273.4 is 6093.6 Wh a day; 8192 − 5093.6 − 1000 = 2098.4; / 1273.4 = 1.648.
    name: 'over a midnight: 4 + 20 + 1.65 h',
    edit: (d) => void Object.assign(item1(d), { runsFromH: 22, runsToH: 2, hoursPerDay: 2 }),
    state: 'within',
    value: 25.648,
  },
  {
    name: 'a storage box on the DC side makes no island',
    edit: (d) => void (stack1(d).arrangement = 'dc-side-box'),
    state: 'nothing',
  },
  { name: 'no battery', edit: (d) => void (stack1(d).bank = 'none'), state: 'nothing' },
  {
    name: 'hours per day not known',
    edit: (d) => forget(item1(d), 'hoursPerDay'),
    state: 'unknown',
    missing: 'circuits/c1/items/i1/hoursPerDay',
  },
  {
    name: 'nothing asked for',
    edit: (d) => forget(d.site, 'targetAutonomyH'),
    state: 'unknown',
    missing: 'site/targetAutonomyH',
  },
]);
