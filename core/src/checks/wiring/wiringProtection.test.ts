import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, circuit1, forget, stack1 } from '../../testkit/designs.ts';
import type { Design } from '../../design/schema.ts';
import { withSet } from '../../testkit/wired.ts';
import { wiringProtection } from './wiringProtection.ts';

const BRANCH = 'generator-device g1 out to unit s/u2 generator';

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
  {
    name: 'nobody knows how warm it gets where the leads lie',
    edit: (d) => forget(d.site, 'equipmentHighestC'),
    state: 'unknown',
    missing: 'site/equipmentHighestC',
  },
  {
    name: 'a cable thinner than any table holds',
    edit: (d) => Object.assign(circuit1(d), { device: { ratedA: 6 }, cable: { areaMm2: 0.5 } }),
    state: 'unknown',
    missing: 'circuits/c1/cable/areaMm2',
  },
  // Where a cable divides at a device, the device guards each part: 4 mm² by method C carries 36 A at 30 °C. What is within is told together.
  ...(
    [
      ['63 A ahead of 4 mm² to each of two units', { ratedA: 63 }, BRANCH, 'over', 63, 36],
      ['32 A ahead of them', { ratedA: 32 }, 'network', 'within', 32, 36],
      ['an isolator of 63 A guards nothing', { typeId: 'isolator-63a-4p' }, 'network', 'within', 160, 213],
    ] as const
  ).map(([name, device, subject, state, value, limit]) => ({
    name,
    edit: (d: Design) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units = [{ id: 'u1' }, { id: 'u2' }];
      withSet(d);
      d.devices.push({ id: 'd1', role: 'generator-device', generatorId: 'g1', ...device });
      d.wiring = { cables: [{ id: 'k1', lineId: BRANCH, areaMm2: 4 }] };
    },
    subject,
    state,
    value,
    limit,
  })),
]);
