import { checkTable } from '../../testkit/checkTable.ts';
import { withStrings } from '../../testkit/wired.ts';
import { forget } from '../../testkit/designs.ts';
import { pvStringWindow } from './pvStringWindow.ts';

checkTable(pvStringWindow, [
  { name: 'no array', state: 'nothing' },
  {
    name: 'cells at 35 + 30 = 65 °C: 10 · 32.4 · (1 - 0.0032 · 40) = 282.5; in the cold 370.7 of 430 is nearer',
    edit: (d) => withStrings(d, 10),
    state: 'within',
    value: 370.66,
    limit: 430,
  },
  {
    name: 'four: 113.0 V of 120',
    edit: (d) => withStrings(d, 4),
    state: 'over',
    value: 113.01,
    limit: 120,
    says: 'cells at 65 °C',
  },
  {
    name: '12 in the cold: 444.8 V, past 430: some power is lost, tight at worst',
    edit: (d) => withStrings(d, 12),
    state: 'tight',
    value: 444.79,
    limit: 430,
  },
  {
    name: 'record high not known',
    edit: (d) => {
      withStrings(d, 10);
      forget(d.site, 'highestC');
    },
    state: 'unknown',
    missing: 'site/highestC',
  },
]);
