import { checkTable } from '../../testkit/checkTable.ts';
import { withStrings } from '../../testkit/wired.ts';
import { forget } from '../../testkit/designs.ts';
import { pvStringVoltage } from './pvStringVoltage.ts';

checkTable(pvStringVoltage, [
  { name: 'no array', state: 'nothing' },
  {
    name: '10 · 38.8 · (1 + 0.0026 · 45) = 433.4 V of 500',
    edit: (d) => withStrings(d, 10),
    state: 'within',
    value: 433.4,
    limit: 500,
  },
  { name: '12 in a string: 520.1 V', edit: (d) => withStrings(d, 12), state: 'over', value: 520.08 },
  { name: '11: 476.7 V of 500', edit: (d) => withStrings(d, 11), state: 'within', value: 476.74 },
  {
    name: 'record low not known',
    edit: (d) => {
      withStrings(d, 10);
      forget(d.site, 'lowestC');
    },
    state: 'unknown',
    missing: 'site/lowestC',
  },
  {
    name: 'on no input yet',
    edit: (d) => withStrings(d, 10, { places: [] }),
    state: 'unknown',
    missing: 'arrays/a/places',
  },
]);
