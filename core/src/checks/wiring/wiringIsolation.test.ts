import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { withIsolators } from '../../testkit/sound.ts';
import { place, withSet, withStrings } from '../../testkit/wired.ts';
import { wiringIsolation } from './wiringIsolation.ts';

/** All is there but what is denied. */
const but =
  (role: Design['devices'][number]['role']) =>
  (design: Design): void => {
    withIsolators(design);
    for (const device of design.devices) if (device.role === role) device.fitted = 'none';
  };

checkTable(wiringIsolation, [
  { name: 'nobody has said what is there', state: 'unknown', missing: 'devices' },
  { name: 'a device at every source', edit: (d) => void withIsolators(d), state: 'within' },
  {
    name: 'no isolator of the grid, and no device at the unit',
    edit: (d) => {
      but('grid-isolator')(d);
      place(d, 'unit-grid', { stackId: 's', unitId: 'u1', fitted: 'none' });
    },
    state: 'over',
    value: 0,
    says: 'nothing is there to cut the grid off with',
  },
  {
    name: 'a device at the unit stands in for the isolator',
    edit: (d) => {
      but('grid-isolator')(d);
      place(d, 'unit-grid', { stackId: 's', unitId: 'u1', ratedA: 40 });
    },
    state: 'within',
  },
  {
    name: 'a generator that nothing cuts off',
    edit: (d) => {
      withSet(d);
      but('generator-device')(d);
    },
    state: 'over',
    says: 'Set: nothing is there to cut it off with',
  },
  {
    name: 'strings without a switch',
    edit: (d) => {
      withStrings(d, 9);
      but('dc-switch')(d);
    },
    state: 'over',
    subject: 'array a',
  },
]);
