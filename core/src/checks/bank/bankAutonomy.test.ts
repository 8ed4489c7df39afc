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
    says: '14.5 h from full',
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
