import { checkTable } from '../../testkit/checkTable.ts';
import { bank1 } from '../../testkit/designs.ts';
import { bankManagement } from './bankManagement.ts';

checkTable(bankManagement, [
  { name: 'loop not said', state: 'unknown', missing: 'stacks/s/bank/comms' },
  {
    name: 'closed: the group allows 800 A',
    edit: (d) => void (bank1(d).comms = { loop: 'closed', links: [] }),
    state: 'within',
    value: 54.62,
    limit: 800,
  },
  {
    name: 'open: nothing is assumed',
    edit: (d) => void (bank1(d).comms = { loop: 'open', links: [] }),
    state: 'nothing',
  },
]);
