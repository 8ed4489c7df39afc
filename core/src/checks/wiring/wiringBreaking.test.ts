import { checkTable } from '../../testkit/checkTable.ts';
import type { Design } from '../../design/schema.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { bank1, circuit1 } from '../../testkit/designs.ts';
import { batteryDevice, ownDevice, place, withSet } from '../../testkit/wired.ts';
import { wiringBreaking } from './wiringBreaking.ts';

/** The cable from the service board to the board of the grid side. */
const GRID_SIDE_FEED = 'service-board bus to board g bus';

const acDevice = (design: Design, breakingA: number): void =>
  ownDevice(design, 'dc-breaker-125a', { device: 'circuit-breaker', ratedA: 63, ratedV: 400, breakingA });

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
    name: 'the service of 6 kA through a main of 3 kA: cables on the way that nobody stated count as nothing',
    edit: (d) => {
      d.site.prospectiveFaultA = 6000;
      acDevice(d, 3000);
      place(d, 'board-main', { partitionId: 'b', typeId: 'own' });
    },
    subject: 'board-main b',
    state: 'over',
    value: 6000,
    limit: 3000,
    says: 'less behind the cables on the way',
  },
  {
    // Z = 230 V / 6 kA = 38.3 mΩ; 20 m of 16 mm² out and back at 20 °C: 2 · 20 m · 1.15 mΩ/m = 46 mΩ; I = 230 V / √(38.33² + 46²) mΩ = 3841 A.
    name: 'behind 20 m of 16 mm² the same 6 kA are 3.84 kA',
    edit: (d) => {
      d.site.prospectiveFaultA = 6000;
      acDevice(d, 10000);
      circuit1(d).partitionId = 'g';
      circuit1(d).device = { typeId: 'own' };
      d.wiring = {
        cables: [{ id: 'w', lineId: GRID_SIDE_FEED, lengthM: 20, areaMm2: 16 }],
      };
    },
    state: 'within',
    value: 3841.1,
    limit: 10000,
  },
  {
    name: 'a device counts at the end of its cable that more can flow into: the main ahead of 20 m, not behind them',
    edit: (d) => {
      d.site.prospectiveFaultA = 6000;
      acDevice(d, 10000);
      place(d, 'service-main', { typeId: 'own' });
      d.wiring = {
        cables: [{ id: 'w', lineId: 'grid supply to service-board bus', lengthM: 20, areaMm2: 16 }],
      };
    },
    state: 'within',
    value: 6000,
  },
  {
    // Two generators of one kind would add; one of 4 kVA: 4000 / 230 · 3 = 52.2 A, far below the 6 kA of the grid.
    name: 'of grid, island and generator the worst is told',
    edit: (d) => {
      d.site.prospectiveFaultA = 6000;
      withSet(d);
      acDevice(d, 10000);
      place(d, 'board-main', { partitionId: 'b', typeId: 'own' });
    },
    subject: 'network',
    state: 'within',
    value: 6000,
  },
  {
    // Without a grid: 5 kVA · 2.5 / 230 V = 54.3 A.
    name: 'without a grid the inverter alone',
    edit: (d) => {
      d.site.grid = 'none';
      acDevice(d, 10000);
      place(d, 'board-main', { partitionId: 'b', typeId: 'own' });
    },
    state: 'within',
    value: 54.3,
  },
  {
    name: 'a prospective current that nobody has asked for',
    edit: (d) => {
      acDevice(d, 10000);
      place(d, 'board-main', { partitionId: 'b', typeId: 'own' });
    },
    state: 'unknown',
    missing: 'site/prospectiveFaultA',
  },
  {
    name: 'a breaker whose type does not say what it opens',
    edit: (d) => {
      d.site.prospectiveFaultA = 6000;
      acDevice(d, 10000);
      const own = d.types.at(-1);
      if (own !== undefined) Reflect.deleteProperty(own, 'breakingA');
      place(d, 'board-main', { partitionId: 'b', typeId: 'own' });
    },
    state: 'unknown',
    missing: 'types/own/breakingA',
  },
  {
    // Four modules: through the device of one of them the three others drive 57.6 V / 4 mΩ = 14.4 kA.
    name: 'at one of four modules what the three others give',
    edit: (d) => {
      ownDevice(d, 'dc-breaker-125a', { breakingA: 12000 });
      place(d, 'battery-module', { stackId: 's', moduleId: 'm1', typeId: 'own' });
    },
    state: 'over',
    value: 14400,
    limit: 12000,
  },
  // Four modules; the resistance of the sample alone makes 57.6 V / 12 mΩ = 4.8 kA of each.
  ...(
    [
      ['whose resistance nobody states, and whose short circuit is 2500 A', undefined, 2500, 10_000],
      ['that state more than their resistance makes', 12, 6000, 24_000],
      ['that state less', 12, 2500, 19_200],
      ['of which nobody states either', undefined, undefined, undefined],
    ] as const
  ).map(([name, internalMilliohm, shortCircuitA, amperes]) => ({
    name: `modules ${name}`,
    edit: (d: Design) => {
      batteryDevice({ breakingA: 9000 })(d);
      const {
        internalMilliohm: _ohm,
        shortCircuitA: _short,
        ...rest
      } = variantOf('battery', 'lfp-51v-100ah', {
        id: 'own-battery',
      });
      d.types.push({
        ...rest,
        ...(internalMilliohm === undefined ? {} : { internalMilliohm }),
        ...(shortCircuitA === undefined ? {} : { shortCircuitA }),
      });
      bank1(d).batteryTypeId = 'own-battery';
    },
    ...(amperes === undefined
      ? { state: 'unknown' as const, missing: 'types/own-battery/internalMilliohm' }
      : { state: 'over' as const, value: amperes, limit: 9000 }),
  })),
]);
