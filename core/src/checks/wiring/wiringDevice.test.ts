import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, forget } from '../../testkit/designs.ts';
import { batteryDevice, withStrings } from '../../testkit/wired.ts';
import { wiringDevice } from './wiringDevice.ts';

checkTable(wiringDevice, [
  { name: 'only a rating is typed: nothing to look at', state: 'nothing' },
  {
    name: '80 V for a bank of up to 57.6 V',
    edit: batteryDevice({}),
    state: 'within',
    value: 57.6,
    limit: 80,
  },
  {
    name: '48 V is too low',
    edit: batteryDevice({ ratedV: 48 }),
    state: 'over',
    value: 57.6,
    limit: 48,
    says: 'is rated 48 V',
  },
  {
    name: 'an AC breaker of 230 V in a battery line',
    edit: batteryDevice({ device: 'circuit-breaker', ratedV: 230 }),
    state: 'over',
    says: 'not rated for direct current',
  },
  {
    name: 'a DC breaker as the main of a board',
    edit: (d) => {
      batteryDevice({})(d);
      bank1(d).breakerTypeId = 'dc-breaker-125a';
      d.devices.push({ id: 'x', role: 'board-main', partitionId: 'b', fitted: 'yes', typeId: 'own' });
    },
    state: 'over',
    says: 'stands in an alternating line',
  },
  {
    // 8 · 38.8 V · (1 − 0.0026 · (−20 − 25)) = 310.4 · 1.117 = 346.72 V: the bank has nothing to do with it.
    name: 'a PV switch of 300 V in a string of 347 V',
    edit: (d) => {
      withStrings(d, 8);
      batteryDevice({ ratedV: 300 })(d);
      forget(bank1(d), 'breakerTypeId');
      d.devices.push({ id: 'x', role: 'dc-switch', arrayId: 'a', fitted: 'yes', typeId: 'own' });
    },
    state: 'over',
    value: 346.7168,
    limit: 300,
  },
  {
    name: 'a PV switch while nobody knows the cold',
    edit: (d) => {
      withStrings(d, 8);
      batteryDevice({ ratedV: 600 })(d);
      forget(bank1(d), 'breakerTypeId');
      forget(d.site, 'lowestC');
      d.devices.push({ id: 'x', role: 'dc-switch', arrayId: 'a', fitted: 'yes', typeId: 'own' });
    },
    state: 'unknown',
    missing: 'site/lowestC',
  },
]);
