import { checkTable } from '../../testkit/checkTable.ts';
import { addWall, boxAt, unitAt } from '../../testkit/wall.ts';
import { placeLoad } from './placeLoad.ts';

checkTable(placeLoad, [
  { name: 'no wall plan', state: 'nothing' },
  { name: 'one unit of 24 kg', edit: (d) => void addWall(d), state: 'within', value: 24, limit: 200 },
  {
    name: 'with a box of 180 kg: 204 kg',
    edit: (d) => void addWall(d, { mounted: [unitAt(1, 1), boxAt(2, 1, 0.5, 0.5, 180)] }),
    state: 'over',
    value: 204,
  },
  {
    name: 'a box whose mass is not known',
    edit: (d) => void addWall(d, { mounted: [unitAt(1, 1), boxAt(2, 1, 0.5, 0.5)] }),
    state: 'unknown',
    missing: 'place/mounted/w2/massKg',
  },
  {
    name: 'a wall nobody has asked about',
    edit: (d) => {
      delete addWall(d).wall?.loadLimitKg;
    },
    state: 'unknown',
    missing: 'place/wall/loadLimitKg',
  },
]);
