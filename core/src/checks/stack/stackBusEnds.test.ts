import { checkTable } from '../../testkit/checkTable.ts';
import { busLink, threeOnABus } from '../../testkit/wired.ts';
import { forget, stack1 } from '../../testkit/designs.ts';
import { stackBusEnds } from './stackBusEnds.ts';

checkTable(stackBusEnds, [
  { name: 'one unit', state: 'nothing' },
  { name: 'both ends', edit: threeOnABus, state: 'within', says: 'unit 1 and unit 3' },
  {
    name: 'the middle one too, and one end not',
    edit: (d) => {
      threeOnABus(d);
      stack1(d).terminated = ['u1', 'u2'];
    },
    state: 'over',
    value: 2,
    says: 'unit 3 is an end of the bus and has no terminator; unit 2 has a terminator and is no end',
  },
  {
    name: 'the ends follow the cables, not the list',
    edit: (d) => {
      threeOnABus(d);
      stack1(d).busLinks = [busLink('a', 'u2', 'u1'), busLink('b', 'u1', 'u3')];
      stack1(d).terminated = ['u2', 'u3'];
    },
    state: 'within',
    says: 'unit 2 and unit 3',
  },
  {
    name: 'a bus that is no line has no ends to judge',
    edit: (d) => {
      threeOnABus(d);
      stack1(d).busLinks?.pop();
    },
    state: 'unknown',
    missing: 'stacks/s/busLinks',
  },
  {
    name: 'terminators not said',
    edit: (d) => {
      threeOnABus(d);
      forget(stack1(d), 'terminated');
    },
    state: 'unknown',
    missing: 'stacks/s/terminated',
  },
]);
