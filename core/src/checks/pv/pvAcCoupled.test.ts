import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { pvAcCoupled } from './pvAcCoupled.ts';

const roof =
  (ratedAcW: number | undefined, partitionId = 'b') =>
  (d: Design): void =>
    void d.arrays.push({
      id: 'a',
      name: 'Roof',
      coupling: 'ac',
      partitionId,
      ...(ratedAcW === undefined ? {} : { ratedAcW }),
    });

checkTable(pvAcCoupled, [
  { name: 'none', state: 'nothing' },
  { name: '4000 of 5000', edit: roof(4000), state: 'within', value: 4000, limit: 5000 },
  { name: '6000 of 5000', edit: roof(6000), state: 'over' },
  { name: 'on the grid side it is dark in island', edit: roof(6000, 'g'), state: 'nothing' },
  { name: 'rating not known', edit: roof(undefined), state: 'unknown', missing: 'arrays/a/ratedAcW' },
]);
