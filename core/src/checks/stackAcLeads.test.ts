import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { stack1 } from '../testkit/designs.ts';
import { stackAcLeads } from './stackAcLeads.ts';

const units = (...lengths: readonly number[]) =>
  lengths.map((lengthM, index) => ({ id: `u${index + 1}`, acLead: { lengthM, areaMm2: 10 } }));

function paralleled(design: Design, ...lengths: readonly number[]): void {
  const stack = stack1(design);
  stack.arrangement = 'parallel-single-phase';
  stack.units = units(...lengths);
}

checkTable(stackAcLeads, [
  { name: 'one unit', state: 'nothing' },
  { name: 'equal', edit: (d) => paralleled(d, 4, 4), state: 'within', value: 0 },
  {
    name: '(4 - 3.7) / 4 = 7.5 %',
    edit: (d) => paralleled(d, 4, 3.7),
    state: 'within',
    value: 0.075,
    limit: 0.1,
  },
  {
    name: '(4 - 3) / 4 = 25 %: tight, never over',
    edit: (d) => paralleled(d, 4, 3),
    state: 'tight',
    value: 0.25,
  },
  {
    name: 'one lead not measured',
    edit: (d) => {
      paralleled(d, 4, 4);
      stack1(d).units[1] = { id: 'u2', acLead: { areaMm2: 10 } };
    },
    state: 'unknown',
    missing: 'stacks/s/units/u2/acLead/lengthM',
  },
]);
