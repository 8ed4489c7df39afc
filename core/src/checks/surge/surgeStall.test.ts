import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { forget, item1 } from '../../testkit/designs.ts';
import { surgeStall } from './surgeStall.ts';

const start = (design: Design, multiple: number): void =>
  void Object.assign(item1(design), { startMultiple: multiple, startDurationS: 1, startPowerFactor: 1 });

// One unit of 5000 VA gives at most 2 · 5000 = 10000 VA.
checkTable(surgeStall, [
  { name: 'nothing starts', state: 'nothing' },
  {
    name: '4 · 2300 = 9200 VA: full voltage',
    edit: (d) => start(d, 4),
    state: 'within',
    value: 1,
    limit: 0.7,
  },
  {
    name: '6 · 2300 = 13800 VA: 10000 / 13800 = 0.725',
    edit: (d) => start(d, 6),
    state: 'tight',
    value: 0.725,
  },
  {
    name: '8 · 2300 = 18400 VA: 10000 / 18400 = 0.543, a probable stall',
    edit: (d) => start(d, 8),
    state: 'over',
    value: 0.543,
    says: 'will probably stall',
  },
  {
    name: 'with a limit of the job',
    edit: (d) => {
      start(d, 8);
      d.defaults.push({ id: 'startVoltage', value: 0.5, reason: 'soft load' });
    },
    state: 'tight',
    limit: 0.5,
  },
  {
    name: 'start not known',
    edit: (d) => forget(item1(d), 'startClass'),
    state: 'unknown',
    missing: 'circuits/c1/items/i1/startClass',
  },
]);
