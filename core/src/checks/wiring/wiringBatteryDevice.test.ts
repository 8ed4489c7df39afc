import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bank1 } from '../../testkit/designs.ts';
import { place } from '../../testkit/wired.ts';
import { wiringBatteryDevice } from './wiringBatteryDevice.ts';

/** A device of the inverter in a lead of so many metres, and of each module where it is said. */
const fused =
  (leadM: number | undefined, fromBatteryM?: number, moduleAtM?: number) =>
  (design: Design): void => {
    const at = (metres: number | undefined) => (metres === undefined ? {} : { fromBatteryM: metres });
    bank1(design).inverterLead = leadM === undefined ? { areaMm2: 50 } : { lengthM: leadM, areaMm2: 50 };
    place(design, 'battery-unit', { stackId: 's', unitId: 'u1', fitted: 'yes', ...at(fromBatteryM) });
    if (moduleAtM !== undefined)
      for (const { id } of bank1(design).modules)
        place(design, 'battery-module', { stackId: 's', moduleId: id, fitted: 'yes', ...at(moduleAtM) });
  };

// Three metres, where nobody has changed it: a device that is set back along its conductor.
checkTable(wiringBatteryDevice, [
  {
    name: 'none is fitted',
    state: 'nothing',
    edit: (d) => place(d, 'battery-unit', { stackId: 's', unitId: 'u1', fitted: 'none' }),
  },
  { name: 'a lead that is short as a whole', edit: fused(3), state: 'within', value: 3 },
  {
    name: 'a longer one, and nobody has said where',
    edit: fused(3.1),
    state: 'unknown',
    missing: 'devices/d1/fromBatteryM',
  },
  {
    name: 'a lead of no length',
    edit: fused(undefined),
    state: 'unknown',
    missing: 'devices/d1/fromBatteryM',
  },
  { name: 'near', edit: fused(6, 3), state: 'within', value: 3, limit: 3 },
  {
    name: 'too far away',
    edit: fused(6, 3.2),
    state: 'over',
    value: 3.2,
    says: 'nothing protects its lead up to there',
  },
  {
    name: 'behind devices of the modules the place of the next matters no more',
    edit: fused(6, 5, 0.2),
    state: 'within',
    value: 0.2,
  },
  {
    name: 'a limit of the job',
    edit: (d) => {
      fused(6, 1)(d);
      d.defaults.push({ id: 'batteryDeviceM', value: 0.5, reason: 'its maker wants that' });
    },
    state: 'over',
    limit: 0.5,
  },
]);
