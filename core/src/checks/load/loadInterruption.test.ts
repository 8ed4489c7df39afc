import { addLoad, forget, item1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { loadInterruption } from './loadInterruption.ts';

checkTable(loadInterruption, [
  { name: '10 ms transfer, 1000 ms allowed', state: 'within', value: 10, limit: 1000 },
  {
    name: '8 ms allowed: over',
    edit: (d) => void (item1(d).longestInterruptionMs = 8),
    state: 'over',
    limit: 8,
    says: '1 load will see the break',
  },
  {
    name: '11 ms allowed: (11 − 10) / 11 = 9 % left',
    edit: (d) => void (item1(d).longestInterruptionMs = 11),
    state: 'tight',
  },
  {
    name: 'exactly the transfer time is not over',
    edit: (d) => void (item1(d).longestInterruptionMs = 10),
    state: 'tight',
  },
  {
    name: 'the shortest of several',
    edit: (d) => addLoad(d, 'c2', ['L1'], { longestInterruptionMs: 5 }),
    state: 'over',
    limit: 5,
  },
  {
    name: 'not stated',
    edit: (d) => forget(item1(d), 'longestInterruptionMs'),
    state: 'unknown',
    missing: 'circuits/c1/items/i1/longestInterruptionMs',
  },
]);
