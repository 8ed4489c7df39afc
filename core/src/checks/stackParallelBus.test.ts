import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { forget, stack1 } from '../testkit/designs.ts';
import { stackParallelBus } from './stackParallelBus.ts';

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

checkTable(stackParallelBus, [
  { name: 'one unit has no bus', state: 'nothing' },
  { name: 'a line of three', edit: three, state: 'within', says: 'one line through all 3 units' },
  {
    name: 'a cable in the wrong socket',
    edit: (d) => {
      three(d);
      stack1(d).busLinks = [link('a', 'u1', 'u2'), { ...link('b', 'u2', 'u3'), toPort: 'P-OUT' }];
    },
    state: 'over',
    value: 1,
    says: 'the cable into unit 3 is in P-OUT, where P-IN is meant',
  },
  {
    name: 'a star: two cables leave one unit',
    edit: (d) => {
      three(d);
      stack1(d).busLinks = [link('a', 'u1', 'u2'), link('b', 'u1', 'u3')];
    },
    state: 'over',
    says: 'more than one cable leaves unit 1',
  },
  {
    name: 'closed to a ring, where the type wants a line',
    edit: (d) => {
      three(d);
      stack1(d).busLinks?.push(link('c', 'u3', 'u1'));
    },
    state: 'over',
    says: 'closed to a ring',
  },
  {
    name: 'a unit left out',
    edit: (d) => {
      three(d);
      stack1(d).busLinks?.pop();
    },
    state: 'over',
    says: 'does not reach unit 3',
  },
  {
    name: 'a ring type that is not closed',
    edit: (d) => {
      three(d);
      stack1(d).inverterTypeId = 'hybrid-8k-ring';
      stack1(d).busLinks = [
        { ...link('a', 'u1', 'u2'), fromPort: 'RING OUT', toPort: 'RING IN' },
        { ...link('b', 'u2', 'u3'), fromPort: 'RING OUT', toPort: 'RING IN' },
      ];
    },
    state: 'over',
    says: 'the ring is not closed',
  },
  {
    name: 'cables not said',
    edit: (d) => {
      three(d);
      forget(stack1(d), 'busLinks');
    },
    state: 'unknown',
    missing: 'stacks/s/busLinks',
  },
]);
