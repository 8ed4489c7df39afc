import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { withSet } from '../../testkit/wired.ts';
import { generatorPv } from './generatorPv.ts';

const roof = (d: Design, withGenerator?: 'disconnected' | 'proven-curtailed' | 'stays'): void => {
  withSet(d);
  d.arrays.push({
    id: 'a',
    name: 'Roof',
    coupling: 'ac',
    ratedAcW: 3000,
    partitionId: 'b',
    ...(withGenerator === undefined ? {} : { withGenerator }),
  });
};

checkTable(generatorPv, [
  { name: 'no roof', edit: (d) => withSet(d), state: 'nothing' },
  { name: 'disconnected', edit: (d) => roof(d, 'disconnected'), state: 'within', says: 'is disconnected' },
  { name: 'curtailed and proven', edit: (d) => roof(d, 'proven-curtailed'), state: 'within' },
  { name: 'left on', edit: (d) => roof(d, 'stays'), state: 'over', says: 'drive the set backwards' },
  { name: 'not said', edit: (d) => roof(d), state: 'unknown', missing: 'arrays/a/withGenerator' },
]);
