import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { ProtectiveDeviceType } from '../../catalogue/partTypes.ts';
import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, circuit1 } from '../../testkit/designs.ts';
import { wiringBreaking } from './wiringBreaking.ts';
import { wiringDevice } from './wiringDevice.ts';
import { wiringProtection } from './wiringProtection.ts';
import { wiringTerminals } from './wiringTerminals.ts';

/** The battery device of the base design as one of a type like the 125 A breaker with other figures. */
const device =
  (figures: Partial<ProtectiveDeviceType>) =>
  (design: Design): void => {
    const found = SAMPLE_TYPES.find((type) => type.id === 'dc-breaker-125a');
    if (found?.kind !== 'protective-device') throw new Error('It is a sample.');
    design.types.push({ ...found, id: 'own', name: 'Own breaker', ...figures });
    bank1(design).breakerTypeId = 'own';
  };

checkTable(wiringDevice, [
  { name: 'only a rating is typed: nothing to look at', state: 'nothing' },
  { name: '80 V for a bank of up to 57.6 V', edit: device({}), state: 'within', value: 57.6, limit: 80 },
  {
    name: '48 V is too low',
    edit: device({ ratedV: 48 }),
    state: 'over',
    value: 57.6,
    limit: 48,
    says: 'is rated 48 V',
  },
  {
    name: 'an AC breaker of 230 V in a battery line',
    edit: device({ device: 'circuit-breaker', ratedV: 230 }),
    state: 'over',
    says: 'not rated for direct current',
  },
  {
    name: 'a DC breaker as the main of a board',
    edit: (d) => {
      device({})(d);
      bank1(d).breakerTypeId = 'dc-breaker-125a';
      d.devices.push({ id: 'x', role: 'board-main', partitionId: 'b', fitted: 'yes', typeId: 'own' });
    },
    state: 'over',
    says: 'stands in an alternating line',
  },
]);

// 4 modules of 12 mΩ: 57.6 V / 3 mΩ = 19.2 kA.
checkTable(wiringBreaking, [
  { name: '19.2 kA of 10 kA', edit: device({}), state: 'over', value: 19200, limit: 10000 },
  { name: '19.2 kA of 20 kA leaves 4 %', edit: device({ breakingA: 20000 }), state: 'tight', limit: 20000 },
  { name: '19.2 kA of 25 kA', edit: device({ breakingA: 25000 }), state: 'within', limit: 25000 },
]);

// 70 mm² PVC, two loaded, clipped direct: 196 A at 30 °C by the table of the profile.
checkTable(wiringProtection, [
  { name: '160 A before leads of 70 mm²', state: 'within', value: 160 },
  {
    name: '250 A before them',
    edit: (d) => void (bank1(d).breakerA = 250),
    state: 'over',
    value: 250,
    says: 'its leads of 70 mm²',
  },
  {
    name: 'a circuit: 32 A before 2.5 mm² of 27 A',
    edit: (d) => Object.assign(circuit1(d), { device: { ratedA: 32 }, cable: { areaMm2: 2.5 } }),
    subject: 'circuit c1',
    state: 'over',
    value: 32,
    limit: 27,
  },
  {
    name: 'North American: 40 A before 12 AWG, which takes 20 A at most',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      Object.assign(circuit1(d), { device: { ratedA: 40 }, cable: { areaMm2: 3.31 } });
    },
    subject: 'circuit c1',
    state: 'over',
    limit: 20,
  },
]);

checkTable(wiringTerminals, [
  { name: '70 mm² in a port for 6 to 70, 50 mm² in modules for 16 to 95', state: 'within' },
  {
    name: '95 mm² does not go into a battery port of the inverter that takes 70',
    edit: (d) => void (bank1(d).inverterLead = { lengthM: 1.5, areaMm2: 95 }),
    state: 'over',
    value: 95,
    limit: 70,
    says: 'battery port of unit 1 takes 6 to 70 mm²',
  },
  {
    name: '10 mm² is too thin for a module that takes 16 to 95',
    edit: (d) => void (bank1(d).lead = { lengthM: 1, areaMm2: 10 }),
    state: 'over',
    value: 10,
    limit: 16,
  },
]);
