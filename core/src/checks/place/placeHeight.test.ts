import { checkTable } from '../../testkit/checkTable.ts';
import { stack1 } from '../../testkit/designs.ts';
import { addWall, unitAt } from '../../testkit/wall.ts';
import { placeHeight } from './placeHeight.ts';

checkTable(placeHeight, [
  { name: 'no wall plan', state: 'nothing' },
  { name: 'between 0.5 m and 1.8 m', edit: (d) => void addWall(d), state: 'within', value: 1, limit: 0.5 },
  {
    name: 'too low',
    edit: (d) => void addWall(d, { mounted: [unitAt(1, 0.3)] }),
    state: 'over',
    value: 0.3,
    limit: 0.5,
  },
  {
    name: 'too high',
    edit: (d) => void addWall(d, { mounted: [unitAt(1, 1.82)] }),
    state: 'over',
    value: 1.82,
    limit: 1.8,
    says: '0.5 m to 1.8 m',
  },
  {
    name: 'a type nobody has chosen',
    edit: (d) => {
      addWall(d);
      delete stack1(d).inverterTypeId;
    },
    state: 'unknown',
    missing: 'stacks/s/inverterTypeId',
  },
]);
