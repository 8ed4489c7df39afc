import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { forget, stack1 } from '../testkit/designs.ts';
import { stackBusEnds } from './stackBusEnds.ts';

/** Three units in parallel on one line, joined as a line from port to port. */
function three(design: Design): void {
  const stack = stack1(design);
  stack.arrangement = 'parallel-single-phase';
  stack.units = ['u1', 'u2', 'u3'].map((id, index) => ({ id, firmware: '1', barPlace: index + 1 }));
  stack.busLinks = [link('a', 'u1', 'u2'), link('b', 'u2', 'u3')];
  stack.terminated = ['u1', 'u3'];
}
const link = (id: string, fromUnitId: string, toUnitId: string) => ({
  id,
  fromUnitId,
  fromPort: 'P-OUT',
  toUnitId,
  toPort: 'P-IN',
});

checkTable(stackBusEnds, [
  { name: 'one unit', state: 'nothing' },
  { name: 'both ends', edit: three, state: 'within', says: 'unit 1 and unit 3' },
  {
    name: 'the middle one too, and one end not',
    edit: (d) => {
      three(d);
      stack1(d).terminated = ['u1', 'u2'];
    },
    state: 'over',
    value: 2,
    says: 'unit 3 is an end of the bus and has no terminator; unit 2 has a terminator and is no end',
  },
  {
    name: 'the ends follow the cables, not the list',
    edit: (d) => {
      three(d);
      stack1(d).busLinks = [link('a', 'u2', 'u1'), link('b', 'u1', 'u3')];
      stack1(d).terminated = ['u2', 'u3'];
    },
    state: 'within',
    says: 'unit 2 and unit 3',
  },
  {
    name: 'a bus that is no line has no ends to judge',
    edit: (d) => {
      three(d);
      stack1(d).busLinks?.pop();
    },
    state: 'unknown',
    missing: 'stacks/s/busLinks',
  },
  {
    name: 'terminators not said',
    edit: (d) => {
      three(d);
      forget(stack1(d), 'terminated');
    },
    state: 'unknown',
    missing: 'stacks/s/terminated',
  },
]);
