import { checkTable } from '../../testkit/checkTable.ts';
import { busLink, threeOnABus } from '../../testkit/wired.ts';
import { forget, stack1 } from '../../testkit/designs.ts';
import { stackParallelBus } from './stackParallelBus.ts';

checkTable(stackParallelBus, [
  { name: 'one unit has no bus', state: 'nothing' },
  { name: 'a line of three', edit: threeOnABus, state: 'within', says: 'one line through all 3 units' },
  {
    name: 'a cable in the wrong socket',
    edit: (d) => {
      threeOnABus(d);
      stack1(d).busLinks = [busLink('a', 'u1', 'u2'), { ...busLink('b', 'u2', 'u3'), toPort: 'P-OUT' }];
    },
    state: 'over',
    value: 1,
    says: 'the cable into unit 3 is in P-OUT, where P-IN is meant',
  },
  {
    name: 'a star: two cables leave one unit',
    edit: (d) => {
      threeOnABus(d);
      stack1(d).busLinks = [busLink('a', 'u1', 'u2'), busLink('b', 'u1', 'u3')];
    },
    state: 'over',
    says: 'more than one cable leaves unit 1',
  },
  {
    name: 'closed to a ring, where the type wants a line',
    edit: (d) => {
      threeOnABus(d);
      stack1(d).busLinks?.push(busLink('c', 'u3', 'u1'));
    },
    state: 'over',
    says: 'closed to a ring',
  },
  {
    name: 'a unit left out',
    edit: (d) => {
      threeOnABus(d);
      stack1(d).busLinks?.pop();
    },
    state: 'over',
    says: 'does not reach unit 3',
  },
  {
    name: 'a ring type that is not closed',
    edit: (d) => {
      threeOnABus(d);
      stack1(d).inverterTypeId = 'hybrid-8k-ring';
      stack1(d).busLinks = [
        { ...busLink('a', 'u1', 'u2'), fromPort: 'RING OUT', toPort: 'RING IN' },
        { ...busLink('b', 'u2', 'u3'), fromPort: 'RING OUT', toPort: 'RING IN' },
      ];
    },
    state: 'over',
    says: 'the ring is not closed',
  },
  {
    name: 'cables not said',
    edit: (d) => {
      threeOnABus(d);
      forget(stack1(d), 'busLinks');
    },
    state: 'unknown',
    missing: 'stacks/s/busLinks',
  },
]);
