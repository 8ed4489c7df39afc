import { checkTable } from '../../testkit/checkTable.ts';
import { forget, item1, stack1 } from '../../testkit/designs.ts';
import { loadRehearsed } from './loadRehearsed.ts';

/** What 99 of 100 minutes of a steady load stay within, times its average: two million draws of another generator gave 1.487. */
const TIMES = 1.487;

checkTable(loadRehearsed, [
  { name: '2300 W for 12 of 24 h: 1150 W on average', state: 'within', value: 1150 * TIMES, limit: 5000 },
  {
    name: 'the same 12 h in a window of 12 h: 2300 W in it, and 98 of 100 of its minutes: 2300 · 1.427',
    edit: (d) => Object.assign(item1(d), { runsFromH: 8, runsToH: 20 }),
    state: 'within',
    value: 2300 * 1.427,
    says: 'in 99 of 100 minutes',
  },
  {
    name: 'three that hardly ever run together by their demand, and all day by their hours: 6900 · 1.487',
    edit: (d) => Object.assign(item1(d), { quantity: 3, demandFactor: 0.2, hoursPerDay: 24 }),
    state: 'over',
    value: 6900 * TIMES,
    says: 'The expected peak is 1.38 kVA',
  },
  {
    name: 'over by its expected peak already: told once, by the other check',
    edit: (d) => Object.assign(item1(d), { quantity: 3, hoursPerDay: 24 }),
    state: 'nothing',
  },
  {
    name: 'pf 0.5 doubles the VA',
    edit: (d) => void (item1(d).powerFactor = 0.5),
    state: 'within',
    value: 2300 * TIMES,
  },
  {
    name: 'hours that nobody said: no such load case, and energy asks for them',
    edit: (d) => forget(item1(d), 'hoursPerDay'),
    state: 'nothing',
  },
  {
    name: 'one unit left of two',
    edit: (d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units.push({ id: 'u2', firmware: '1' });
    },
    mode: 'unit-lost:s/u1',
    state: 'within',
    limit: 5000,
  },
]);
