import { checkTable } from '../../testkit/checkTable.ts';
import { addWall } from '../../testkit/wall.ts';
import { placeFixing } from './placeFixing.ts';

checkTable(placeFixing, [
  { name: 'no wall plan', state: 'nothing' },
  {
    name: '24 kg on four holes: 6 kg each',
    edit: (d) => void addWall(d),
    state: 'within',
    value: 6,
    limit: 10,
  },
  {
    name: 'in a wall that holds 5 kg a fixing',
    edit: (d) => void Object.assign(addWall(d).wall ?? {}, { fixingLimitKg: 5 }),
    state: 'over',
    value: 6,
    limit: 5,
  },
  {
    name: 'a wall nobody has asked about',
    edit: (d) => {
      delete addWall(d).wall?.fixingLimitKg;
    },
    state: 'unknown',
    missing: 'place/wall/fixingLimitKg',
  },
]);
