import { checkTable } from '../../testkit/checkTable.ts';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { bank1 } from '../../testkit/designs.ts';
import { batteryDevice } from '../../testkit/wired.ts';
import { wiringBreaking } from './wiringBreaking.ts';

// 4 modules of 12 mΩ: 57.6 V / 3 mΩ = 19.2 kA.
checkTable(wiringBreaking, [
  {
    name: '19.2 kA of 10 kA',
    edit: batteryDevice({ breakingA: 10000 }),
    state: 'over',
    value: 19200,
    limit: 10000,
  },
  {
    name: '19.2 kA of 20 kA leaves 4 %',
    edit: batteryDevice({ breakingA: 20000 }),
    state: 'tight',
    limit: 20000,
  },
  { name: '19.2 kA of 25 kA', edit: batteryDevice({ breakingA: 25000 }), state: 'within', limit: 25000 },
  {
    name: 'modules whose resistance nobody states',
    edit: (d) => {
      batteryDevice({ breakingA: 25000 })(d);
      const battery = SAMPLE_TYPES.find(({ id }) => id === bank1(d).batteryTypeId);
      if (battery?.kind !== 'battery') throw new Error('It is a sample.');
      const { internalMilliohm: _ohm, ...rest } = battery;
      d.types.push({ ...rest, id: 'own-battery' });
      bank1(d).batteryTypeId = 'own-battery';
    },
    state: 'unknown',
    missing: 'types/own-battery/internalMilliohm',
  },
]);
