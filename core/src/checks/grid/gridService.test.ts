import { addLoad, forget, stack1 } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { gridService } from './gridService.ts';

checkTable(gridService, [
  { name: 'with charging: 4300 / 230 = 18.7 of 63', state: 'within', value: 18.7, limit: 63 },
  { name: 'in bypass nothing charges: 10 A', mode: 'maintenance-bypass', state: 'within', value: 10 },
  {
    name: 'grid-side circuits count: (4300 + 11500) / 230 = 68.7',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], { quantity: 5 });
      Object.assign(d.circuits[1] ?? {}, { partitionId: 'g' });
    },
    state: 'over',
    value: 68.7,
  },
  {
    name: 'no rating',
    edit: (d) => forget(d.site, 'serviceRatingA'),
    state: 'unknown',
    missing: 'site/serviceRatingA',
  },
  {
    name: 'no charging power',
    edit: (d) => forget(stack1(d), 'gridChargeW'),
    state: 'unknown',
    missing: 'stacks/s/gridChargeW',
  },
  {
    name: 'no supply at all',
    edit: (d) => forget(d.site, 'supply'),
    state: 'unknown',
    missing: 'site/supply',
  },
]);
