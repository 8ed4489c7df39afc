import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { forget, item1 } from '../../testkit/designs.ts';
import { withRated } from '../../testkit/wired.ts';
import { generatorDip } from './generatorDip.ts';

/** One line of 4 kVA at pf 1, of which 2300 W come on at once: a step of 0.575. */
const withX = (d: Design, more: object = {}): void =>
  withRated(d, { ratedVa: 4000, powerFactor: 1, transientReactance: 0.25, ...more });

checkTable(generatorDip, [
  {
    name: 'its type says nothing: silent',
    edit: (d) => withRated(d, { ratedVa: 4000, powerFactor: 1 }),
    state: 'nothing',
  },
  {
    name: '1 / (1 + 0.25 · 2300 / 4000) = 1 / 1.14375',
    edit: (d) => withX(d),
    state: 'within',
    value: 0.87432,
    limit: 0.7,
    says: 'as it takes 2.3 kVA at once',
  },
  {
    name: 'frequency in proportion: 50 · (1 − 0.1 · 0.575 / 0.6) = 45.2 Hz, back in 4 s',
    edit: (d) => withX(d, { stepFrequencyDip: 0.1, largestStep: 0.6, recoveryS: 4 }),
    state: 'within',
    says: 'and to 45.2 Hz as it takes 2.3 kVA at once; 70 % is needed. It is back within 4 s.',
  },
  {
    name: '1 / (1 + 0.75 · 0.575) = 0.6987: starts stall',
    edit: (d) => withX(d, { transientReactance: 0.75 }),
    state: 'over',
    value: 0.69869,
    says: 'Bring the load on in stages',
  },
  {
    name: 'half of it at pf 0.5 is as many VA',
    edit: (d) => {
      withX(d);
      Object.assign(item1(d), { runningW: 1150, powerFactor: 0.5 });
    },
    state: 'within',
    value: 0.87432,
  },
  {
    name: 'power not known',
    edit: (d) => {
      withX(d);
      forget(item1(d), 'runningW');
    },
    state: 'unknown',
    missing: 'circuits/c1/items/i1/runningW',
  },
]);
