import { bonded } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { forget } from '../../testkit/designs.ts';
import { bondingBackFeed } from './bondingBackFeed.ts';

checkTable(bondingBackFeed, [
  { name: 'the inverter opens its grid port in island', edit: bonded, state: 'within', value: 0 },
  {
    name: 'an inlet on the service board feeds through the service main',
    edit: (d) => {
      bonded(d);
      d.generators.push({
        id: 'g1',
        name: 'Set',
        typeId: 'petrol-4k-1ph',
        connection: 'inlet',
        inletAt: 'service-board',
        stackId: 's',
      });
    },
    mode: 'generator-inlet',
    state: 'over',
    says: 'The way: Set – device of Set – inlet of Set – service board – service main – grid',
  },
  { name: 'no grid', edit: (d) => void (d.site.grid = 'none'), state: 'nothing' },
  {
    name: 'an arrangement that is not chosen may feed back',
    edit: (d) => {
      bonded(d);
      for (const stack of d.stacks) forget(stack, 'arrangement');
    },
    state: 'unknown',
    missing: 'stacks/s/arrangement',
  },
]);
