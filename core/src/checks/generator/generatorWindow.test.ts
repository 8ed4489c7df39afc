import { checkTable } from '../../testkit/checkTable.ts';
import { withSet } from '../../testkit/wired.ts';
import { stack1 } from '../../testkit/designs.ts';
import { generatorWindow } from './generatorWindow.ts';

checkTable(generatorWindow, [
  {
    name: '8 % of 230 V: 211.6 to 248.4 of 184 to 264; (248.4 - 224) / 40 = 0.61; 50 to 53 Hz of 47 to 53: 1',
    edit: (d) => withSet(d),
    state: 'tight',
    value: 1,
    limit: 1,
    says: '212 to 248 V and 50 to 53 Hz',
  },
  {
    name: '2.5 % and 4 %: (52 - 50) / 3 = 0.67',
    edit: (d) => withSet(d, 'diesel-20k-3ph'),
    state: 'within',
    value: 0.667,
  },
  {
    name: 'an inverter that accepts no more than 51.5 Hz',
    edit: (d) => {
      withSet(d);
      stack1(d).inverterTypeId = 'ac-storage-5k-1ph';
    },
    state: 'over',
    says: '195 to 255 V, 47.5 to 51.5 Hz',
  },
  {
    name: 'the inverter type is not chosen',
    edit: (d) => {
      withSet(d);
      Reflect.deleteProperty(stack1(d), 'inverterTypeId');
    },
    state: 'unknown',
    missing: 'stacks/s/inverterTypeId',
  },
]);
