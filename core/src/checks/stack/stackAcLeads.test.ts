import { checkTable } from '../../testkit/checkTable.ts';
import { withAcLeads } from '../../testkit/wired.ts';
import { stack1 } from '../../testkit/designs.ts';
import { stackAcLeads } from './stackAcLeads.ts';

checkTable(stackAcLeads, [
  { name: 'one unit', state: 'nothing' },
  { name: 'equal', edit: (d) => withAcLeads(d, 4, 4), state: 'within', value: 0 },
  {
    name: '(4 - 3.7) / 4 = 7.5 %',
    edit: (d) => withAcLeads(d, 4, 3.7),
    state: 'within',
    value: 0.075,
    limit: 0.1,
  },
  {
    name: '(4 - 3) / 4 = 25 %: tight, never over',
    edit: (d) => withAcLeads(d, 4, 3),
    state: 'tight',
    value: 0.25,
  },
  {
    name: 'one lead not measured',
    edit: (d) => {
      withAcLeads(d, 4, 4);
      stack1(d).units[1] = { id: 'u2', acLead: { areaMm2: 10 } };
    },
    state: 'unknown',
    missing: 'stacks/s/units/u2/acLead/lengthM',
  },
]);
