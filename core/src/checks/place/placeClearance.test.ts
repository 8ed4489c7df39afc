import { checkTable } from '../../testkit/checkTable.ts';
import { addWall, boxAt, obstacleAt, unitAt } from '../../testkit/wall.ts';
import { placeClearance } from './placeClearance.ts';

checkTable(placeClearance, [
  { name: 'no wall plan', state: 'nothing' },
  {
    // Below: 1.0 of 0.5; above: 2.4 - 1.56 = 0.84 of 0.3; left 1.0 of 0.2. Least to spare: below, by 0.5.
    name: 'in the middle of the wall',
    edit: (d) => void addWall(d),
    state: 'within',
    value: 1,
    limit: 0.5,
    says: 'to the floor (below)',
  },
  {
    // 1.61 - 1.46 = 0.15 of 0.2.
    name: 'a box 150 mm to the right',
    edit: (d) => void addWall(d, { mounted: [unitAt(1, 1), boxAt(1.61, 1, 0.3, 0.3)] }),
    subject: 'w1',
    state: 'over',
    value: 0.15,
    limit: 0.2,
    says: 'to Switch box (right)',
  },
  {
    // 2.4 - (1.7 + 0.56) = 0.14 of 0.3.
    name: 'under the ceiling',
    edit: (d) => void addWall(d, { mounted: [unitAt(1, 1.7)] }),
    state: 'over',
    value: 0.14,
    limit: 0.3,
    says: 'to the ceiling (above)',
  },
  {
    // 1.8 - 1.56 = 0.24 of 0.3.
    name: 'under a window',
    edit: (d) => void addWall(d, { obstacles: [obstacleAt('window', 1, 1.8)] }),
    state: 'over',
    value: 0.24,
    says: 'to window (above)',
  },
  {
    name: 'beside, but higher up: they do not face each other',
    edit: (d) => void addWall(d, { obstacles: [obstacleAt('door', 1.5, 1.7)] }),
    state: 'within',
  },
  {
    name: 'a wall whose width is not known',
    edit: (d) => {
      delete addWall(d).wall?.widthM;
    },
    state: 'unknown',
    missing: 'place/wall/widthM',
  },
  {
    name: 'already too near, whatever the width',
    edit: (d) => {
      delete addWall(d, { mounted: [unitAt(0.1, 1)] }).wall?.widthM;
    },
    state: 'over',
    value: 0.1,
  },
]);
