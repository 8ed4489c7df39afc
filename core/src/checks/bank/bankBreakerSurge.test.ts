import { checkTable } from '../../testkit/checkTable.ts';
import { addLoad, bank1, forget, item1 } from '../../testkit/designs.ts';
import { bankBreakerSurge } from './bankBreakerSurge.ts';

const pump = { runningW: 500, powerFactor: 0.5, startClass: 'deep-pump' } as const;

checkTable(bankBreakerSurge, [
  { name: 'nothing starts', state: 'nothing' },
  {
    name: '5300 W / (0.94 · 51.2) = 110.1 A for 0.8 s; 125 A breaker holds 4 times for 1.5 s: 500 A',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], pump);
      bank1(d).breakerTypeId = 'dc-breaker-125a';
    },
    state: 'within',
    value: 110.12,
    limit: 500,
  },
  {
    name: 'for 40 s it holds 1.5 times: 187.5 A',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], { ...pump, startMultiple: 6, startDurationS: 40, startPowerFactor: 0.5 });
      bank1(d).breakerTypeId = 'dc-breaker-125a';
    },
    state: 'within',
    limit: 187.5,
  },
  {
    name: 'only its rating typed: its curve is not known',
    edit: (d) => addLoad(d, 'c2', ['L1'], pump),
    state: 'unknown',
    missing: 'stacks/s/bank/breakerTypeId',
  },
  {
    name: 'starts not known',
    edit: (d) => forget(item1(d), 'startClass'),
    state: 'unknown',
    missing: 'circuits/c1/items/i1/startClass',
  },
]);
