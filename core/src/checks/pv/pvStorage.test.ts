import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, stack1 } from '../../testkit/designs.ts';
import { pvStorage } from './pvStorage.ts';

const roof = (
  d: Design,
  ratedAcW: number | undefined,
  curtailedBy?: 'frequency' | 'shedding' | 'none',
): void =>
  void d.arrays.push({
    id: 'a',
    name: 'Roof',
    coupling: 'ac',
    partitionId: 'b',
    ...(ratedAcW === undefined ? {} : { ratedAcW }),
    ...(curtailedBy === undefined ? {} : { curtailedBy }),
  });

checkTable(pvStorage, [
  { name: 'no roof', state: 'nothing' },
  {
    name: 'inverter 100 A · 51.2 V / 0.94 = 5446.8 W',
    edit: (d) => roof(d, 3000, 'shedding'),
    state: 'within',
    value: 3000,
    limit: 5446.8,
  },
  {
    name: 'one module takes 50 A: 2723.4 W; nothing said of the rest',
    edit: (d) => {
      bank1(d).modules.splice(1);
      roof(d, 3000);
    },
    state: 'unknown',
    missing: 'arrays/a/curtailedBy',
  },
  {
    name: 'held back by frequency',
    edit: (d) => {
      bank1(d).modules.splice(1);
      roof(d, 3000, 'frequency');
    },
    state: 'tight',
    says: 'a shift of frequency holds back the rest',
  },
  {
    name: 'by frequency, which this inverter does not shift',
    edit: (d) => {
      bank1(d).modules.splice(1);
      stack1(d).inverterTypeId = 'hybrid-3k-1ph';
      roof(d, 3000, 'frequency');
    },
    state: 'over',
    says: 'does not shift it',
  },
  {
    name: 'it fits, and nothing holds it back once the battery is full',
    edit: (d) => roof(d, 3000, 'none'),
    state: 'tight',
    says: 'once the battery is full',
  },
  {
    name: 'it fits, and nothing is said',
    edit: (d) => roof(d, 3000),
    state: 'unknown',
    missing: 'arrays/a/curtailedBy',
  },
  {
    name: 'by nothing',
    edit: (d) => {
      bank1(d).modules.splice(1);
      roof(d, 3000, 'none');
    },
    state: 'over',
    limit: 2723.4,
    says: 'nothing holds back Roof',
  },
  {
    name: 'rating not known',
    edit: (d) => roof(d, undefined),
    state: 'unknown',
    missing: 'arrays/a/ratedAcW',
  },
]);
