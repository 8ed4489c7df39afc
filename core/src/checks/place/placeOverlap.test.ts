import { checkTable } from '../../testkit/checkTable.ts';
import { addWall, boxAt, obstacleAt, unitAt } from '../../testkit/wall.ts';
import { placeOverlap } from './placeOverlap.ts';

checkTable(placeOverlap, [
  { name: 'no wall plan', state: 'nothing' },
  { name: 'alone on the wall', edit: (d) => void addWall(d), state: 'within', value: 0 },
  {
    // The unit ends at x = 1.46; a box from 1.40 on reaches 0.06 m into it, and 0.3 m upwards: the smaller counts.
    name: 'a box 60 mm into the unit',
    edit: (d) => void addWall(d, { mounted: [unitAt(1, 1), boxAt(1.4, 1.1, 0.3, 0.3)] }),
    state: 'over',
    value: 0.06,
    says: 'into Switch box',
  },
  {
    name: 'touching is not overlapping',
    edit: (d) => void addWall(d, { mounted: [unitAt(1, 1), boxAt(1.46, 1, 0.3, 0.3)] }),
    state: 'within',
  },
  {
    name: 'a window behind it',
    edit: (d) => void addWall(d, { obstacles: [obstacleAt('window', 1.2, 1.5)] }),
    state: 'over',
    value: 0.06,
  },
  {
    name: 'sun is judged elsewhere',
    edit: (d) => void addWall(d, { obstacles: [obstacleAt('sunlit', 1, 1)] }),
    state: 'within',
  },
  {
    name: 'a box without a size',
    edit: (d) => {
      const box = boxAt(2, 1, 0.3, 0.3);
      delete box.widthM;
      addWall(d, { mounted: [unitAt(1, 1), box] });
    },
    state: 'unknown',
    missing: 'place/mounted/w2/widthM',
  },
]);
