import { bonded } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { threePhase } from '../../testkit/designs.ts';
import { bondingJoinedSources } from './bondingJoinedSources.ts';

checkTable(bondingJoinedSources, [
  {
    name: 'one inverter alone in island has nobody to be in step with',
    edit: bonded,
    mode: 'island',
    state: 'nothing',
  },
  { name: 'an inverter follows the grid', edit: bonded, mode: 'on-grid', state: 'within' },
  {
    name: 'six units of one set',
    edit: (d) => {
      bonded(d);
      threePhase(d, [2, 2, 2]);
    },
    mode: 'island',
    state: 'within',
  },
  {
    name: 'an inlet on the backed-up board meets a running inverter',
    edit: (d) => {
      bonded(d);
      d.generators.push({
        id: 'g1',
        name: 'Set',
        typeId: 'petrol-4k-1ph',
        connection: 'inlet',
        inletAt: 'backed-up-board',
        stackId: 's',
      });
    },
    mode: 'generator-inlet',
    state: 'over',
    says: 'nothing keeps them in step',
  },
]);
