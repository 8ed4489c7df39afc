import { addLoad, forget, item1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { surgeColdPickup } from './surgeColdPickup.ts';

const pump = { runningW: 500, powerFactor: 0.5, startClass: 'deep-pump' } as const;

checkTable(surgeColdPickup, [
  { name: 'nothing starts', state: 'nothing' },
  {
    name: 'two pumps at once on a heater: 2300 + 6000 + j10392.3 = 13300 VA',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], pump);
      addLoad(d, 'c3', ['L1'], pump);
    },
    state: 'over',
    value: 13300,
    limit: 10000,
  },
  {
    name: 'a demand factor does not soften a start: still 2300 + 3000 + j5196.2',
    edit: (d) => addLoad(d, 'c2', ['L1'], { ...pump, demandFactor: 0.1 }),
    state: 'within',
    value: 7422.3,
  },
  {
    name: 'a short start beside a long one: at 1 s both, after that the pump runs on',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], pump);
      addLoad(d, 'c3', ['L1'], {
        runningW: 500,
        powerFactor: 1,
        startMultiple: 3,
        startDurationS: 5,
        startPowerFactor: 1,
      });
    },
    // first second: 2300 + 1500 + 3000 + j5196.2 = 8558.0
    state: 'within',
    value: 8558.04,
    limit: 10000,
  },
  {
    name: 'a running load without a power factor is under every start',
    edit: (d) => forget(item1(d), 'powerFactor'),
    state: 'unknown',
    missing: 'circuits/c1/items/i1/powerFactor',
  },
  {
    name: 'a pump without a power factor',
    edit: (d) => {
      item1(d).startClass = 'deep-pump';
      forget(item1(d), 'powerFactor');
    },
    state: 'unknown',
    missing: 'circuits/c1/items/i1/powerFactor',
  },
]);
