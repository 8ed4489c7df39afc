import { checkTable } from '../../testkit/checkTable.ts';
import { addWall, obstacleAt } from '../../testkit/wall.ts';
import { placeExposure } from './placeExposure.ts';

checkTable(placeExposure, [
  { name: 'no wall plan', state: 'nothing' },
  { name: 'dry, dark and cool', edit: (d) => void addWall(d), state: 'within', value: 0 },
  {
    name: 'in the sun',
    edit: (d) => void addWall(d, { obstacles: [obstacleAt('sunlit', 1.2, 1.2)] }),
    state: 'over',
    value: 1,
    says: 'stands in the sun',
  },
  {
    name: 'above a stove that it does not touch',
    edit: (d) => void addWall(d, { obstacles: [obstacleAt('heat-source', 1.2, 0)] }),
    state: 'over',
    value: 1,
    says: 'over a heat source',
  },
  {
    name: 'beside the stove',
    edit: (d) => void addWall(d, { obstacles: [obstacleAt('heat-source', 2, 0)] }),
    state: 'within',
  },
  {
    name: 'outdoors on timber: both',
    edit: (d) => void Object.assign(addWall(d).wall ?? {}, { exposure: 'outdoors', surface: 'combustible' }),
    state: 'over',
    value: 2,
    says: 'made for sheltered and the wall is outdoors',
  },
  {
    name: 'a wall that nobody has described',
    edit: (d) => {
      delete addWall(d).wall?.exposure;
    },
    state: 'unknown',
    missing: 'place/wall/exposure',
  },
]);
