import type { Design } from '../design/schema.ts';
import { checkTable } from '../testkit/checkTable.ts';
import { generatorPv } from './generatorPv.ts';

const withSet = (d: Design, typeId = 'petrol-4k-1ph', line?: 'L1' | 'L2' | 'L3'): void =>
  void d.generators.push({
    id: 'g1',
    name: 'Set',
    typeId,
    connection: 'generator-port',
    stackId: 's',
    ...(line === undefined ? {} : { line }),
  });

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
