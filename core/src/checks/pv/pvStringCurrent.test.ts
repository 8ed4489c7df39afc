import { checkTable } from '../../testkit/checkTable.ts';
import { withStrings } from '../../testkit/wired.ts';
import { pvStringCurrent } from './pvStringCurrent.ts';

checkTable(pvStringCurrent, [
  {
    name: '14.1 · 1.25 = 17.6 A of 18',
    edit: (d) => withStrings(d, 10),
    state: 'within',
    value: 17.625,
    limit: 18,
  },
  {
    name: 'two strings on one input: 35.3 A',
    edit: (d) =>
      withStrings(d, 10, { places: [{ id: 'p', stackId: 's', unitId: 'u1', input: 1, strings: 2 }] }),
    state: 'over',
    value: 35.25,
  },
  {
    name: 'another array on the same input adds: (14.1 + 9.3) · 1.25 = 29.3',
    edit: (d) => {
      withStrings(d, 10);
      withStrings(d, 9, { id: 'a2', name: 'East roof', moduleTypeId: 'pv-330w-older' });
    },
    state: 'over',
    value: 29.25,
  },
  {
    name: 'module type not chosen',
    edit: (d) => withStrings(d, 10, { moduleTypeId: undefined }),
    state: 'unknown',
    missing: 'arrays/a/moduleTypeId',
  },
]);
