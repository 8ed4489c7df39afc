import { describe, expect, it } from 'vitest';
import { analysisCauses } from '../../checks/causes.ts';
import { type CheckId, CHECKS } from '../../checks/registry.ts';
import type { Design } from '../../design/schema.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { bank1, circuit1, item1, stack1 } from '../../testkit/designs.ts';
import { MENDED } from './candidates.ts';
import { CUSTOMER } from './mendsOf.ts';
import { analysisOf, expectMend, soundNamed } from '../../testkit/mended.ts';
import { withIsolators } from '../../testkit/sound.ts';
import { withSet, withStrings } from '../../testkit/wired.ts';

type Wiring = NonNullable<Design['wiring']>;

/** A fitting on the cable of the first circuit, of 4 mm² and 20 mm over all. */
const withFitting = (fitting: Pick<Wiring, 'passages' | 'splices'>) => (design: Design) => {
  circuit1(design).cable = { areaMm2: 4, lengthM: 5 };
  design.wiring = { cables: [{ id: 'k', lineId: 'circuit cL1', outsideMm: 20 }], ...fitting };
};

const roof = (over: Partial<Design['arrays'][number]>) => (design: Design) =>
  void design.arrays.push({
    id: 'roof',
    name: 'Roof',
    coupling: 'ac',
    ratedAcW: 1000,
    partitionId: 'b',
    curtailedBy: 'frequency',
    ...over,
  });

/** A further circuit like the first. */
const likeFirst = (design: Design, over: Partial<Design['circuits'][number]>): void =>
  void design.circuits.push({ ...circuit1(design), id: 'more', name: 'More heat', ...over });

describe('a choice in the design that clears a mistake', () => {
  it.each<[CheckId, string, (design: Design) => void, RegExp]>([
    [
      'bank.rule',
      'two in parallel',
      (d) => {
        const type = variantOf('inverter', 'hybrid-5k-1ph', { batteryRule: 'own-only' });
        d.types.push(type);
        stack1(d).inverterTypeId = type.id;
      },
      /^A bank like this for each unit$/,
    ],
    [
      'bank.mixed-types',
      'one unit',
      (d) => {
        const type = variantOf('battery', 'lfp-51v-100ah', { nominalV: 48 });
        d.types.push(type);
        Object.assign(bank1(d).modules[1] ?? {}, { batteryTypeId: type.id });
      },
      /^All modules of one type: Sample 51.2 V 100 Ah rack module$/,
    ],
    [
      // Eight modules and three inverters on eight places.
      'bank.bar-places',
      'three-phase from single',
      (d) => void (bank1(d).barTypeId = 'bar-400a-8'),
      /^Another bar: .*twelve places$/,
    ],
    [
      'bank.modules',
      'three-phase native',
      (d) => void bank1(d).modules.push({ id: 'm5' }, { id: 'm6' }),
      /^\d battery modules? fewer$|^One battery module fewer$/,
    ],
    [
      'generator.pv',
      'one unit',
      (d) => {
        withSet(d);
        Object.assign(stack1(d), { generatorChargeW: 300 });
        roof({ withGenerator: 'stays' })(d);
      },
      /^Disconnect Roof while the generator runs$/,
    ],
    [
      'load.dark-line',
      'one unit',
      (d) => {
        d.site.supply = 'three-phase';
        Object.assign(stack1(d).units[0] ?? {}, { line: 'L1' });
        item1(d).runningW = 500;
        likeFirst(d, { lines: ['L2'] });
      },
      /^Move what is dark to L1$/,
    ],
    [
      'pv.inputs',
      'one unit',
      (d) => {
        withStrings(d, 8);
        const [south] = d.arrays;
        if (south !== undefined) d.arrays.push({ ...south, id: 'east', name: 'East roof', directionDeg: 90 });
      },
      /^Plug (South|East) roof into input 2 of unit 1 of Stack$/,
    ],
    [
      // 3 · 14.1 · 1.25 = 52.9 A on an input of 18 A; one string alone is 17.6 A.
      'pv.string-current',
      'one unit',
      (d) => {
        withStrings(d, 8);
        Object.assign(d.arrays[0]?.places?.[0] ?? {}, { strings: 3 });
      },
      /^2 strings side by side fewer of South roof on an input$/,
    ],
    [
      'pv.rapid-shutdown',
      'split-phase native',
      (d) => withStrings(d, 6, { rapidShutdown: 'none' }),
      /^Fit rapid shutdown to South roof$/,
    ],
    [
      'generator.lines',
      'three-phase native',
      (d) => {
        withSet(d, 'petrol-4k-1ph', 'L1');
        Object.assign(d.generators[0] ?? {}, {
          connection: 'transfer-switch',
          transferDeviceTypeId: 'changeover-63a-4p',
        });
        d.partitions.push({ id: 'waits', name: 'Waits', kind: 'generator-only', stackId: 's' });
        likeFirst(d, { lines: ['L2'], partitionId: 'waits' });
      },
      /^Another generator: Sample diesel set 20 kVA three-phase$/,
    ],
    [
      'grid.transfer-device',
      'three-phase native',
      (d) => void (stack1(d).transferDeviceTypeId = 'changeover-40a-2p'),
      /^Another transfer device: Sample hand changeover switch 63 A, four poles$/,
    ],
    [
      // Four modules in series are 410 V nominal.
      'bank.window',
      'three-phase native',
      (d) => {
        const type = variantOf('inverter', 'hybrid-12k-3ph', { batteryWindowV: { min: 160, max: 400 } });
        d.types.push(type);
        stack1(d).inverterTypeId = type.id;
      },
      /^(One battery module|\d battery modules) fewer$|^Another inverter type: /,
    ],
    [
      'stack.count',
      'two in parallel',
      (d) => {
        const type = variantOf('inverter', 'hybrid-5k-1ph', { maxPerLine: 1 });
        d.types.push(type);
        stack1(d).inverterTypeId = type.id;
      },
      /^Another inverter type: Sample hybrid 5 kVA single-phase$/,
    ],
    [
      'stack.arrangement',
      'three-phase from single',
      (d) => void (stack1(d).arrangement = 'split-phase-native'),
      /^Another arrangement: Three-phase from single-phase units$/,
    ],
    [
      'stack.unit-loss',
      'three-phase from single',
      (d) => void (d.site.surviveUnitLoss = 'yes'),
      /^One more unit on each line$/,
    ],
    [
      'stack.enable',
      'one unit',
      (d) => {
        const type = variantOf('inverter', 'hybrid-5k-1ph', { enableInput: 'none' });
        d.types.push(type);
        stack1(d).inverterTypeId = type.id;
        d.devices.push({ id: 'stop', role: 'enable-switch', stackId: 's', fitted: 'yes' });
      },
      /^Leave the enable switch out$/,
    ],
    [
      'stack.battery-profile',
      'two in parallel',
      (d) => void Object.assign(stack1(d).units[1] ?? {}, { batteryProfile: 'other' }),
      /^Load the battery settings “rack” into every unit$/,
    ],
    [
      'stack.outlet',
      'storage on the DC side',
      (d) => {
        d.partitions.push({ id: 'board', name: 'Board', kind: 'backup', stackId: 's' });
        likeFirst(d, { partitionId: 'board' });
      },
      /^Put these boards on the grid side$/,
    ],
    [
      'wiring.battery-device',
      'one unit',
      (d) => void Object.assign(d.devices[0] ?? {}, { fromBatteryM: 5 }),
      /^Put it within 3 m of the battery$/,
    ],
    [
      // 20² / 21² = 0.907 of 0.45: 21 · √(0.907 / 0.45) = 29.8 mm.
      'wiring.fill',
      'one unit',
      withFitting({
        passages: [{ id: 'p', name: 'Conduit', kind: 'conduit', innerMm: 21, lineIds: ['circuit cL1'] }],
      }),
      /^Conduit: 30 mm inside$/,
    ],
    [
      'wiring.fill',
      'one unit',
      withFitting({
        passages: [
          { id: 'p', name: 'Gland', kind: 'gland', innerMm: 14, leastMm: 8, lineIds: ['circuit cL1'] },
        ],
      }),
      /^Gland: one that seals up to 20 mm$/,
    ],
    [
      'wiring.splices',
      'one unit',
      withFitting({
        splices: [
          { id: 'j', lineId: 'circuit cL1', kind: 'splice', minMm2: 0.5, maxMm2: 2.5, enclosure: 'box' },
        ],
      }),
      /^A splice that takes 4 mm²$/,
    ],
    [
      'bonding.earth-point',
      'one unit',
      (d) =>
        void (d.earthPoints = [
          { id: 'e', name: 'main bar', joins: ['chassis', 'backed-up-earth'] },
          { id: 'e2', name: 'old bar', joins: ['grid-earth'] },
        ]),
      /^Join every earth at main bar$/,
    ],
  ])('%s in a sound design of %s', (check, sound, plant, title) => {
    const design = soundNamed(sound);
    plant(design);
    const analysis = analysisOf(withIsolators(analysisOf(design).design));
    const causes = analysisCauses(analysis).filter(({ worst }) => worst.check === check);
    expect(causes[0]?.state).toBe('over');
    expectMend(analysis, causes, title);
  });

  it('an AC lead far shorter than the other: leads alike, load off, or more units', () => {
    const design = soundNamed('two in parallel');
    // 0.5 m beside 60 m: nearly all of 8 kW through unit 1 of 5 kVA, and 2.6 % lost in its fellow's lead.
    stack1(design).units.forEach((unit, at) => (unit.acLead = { lengthM: at === 0 ? 0.5 : 60, areaMm2: 10 }));
    item1(design).runningW = 8000;
    const analysis = analysisOf(design);
    const causes = analysisCauses(analysis).filter(({ worst }) => worst.check === 'stack.unit-share');
    expectMend(analysis, causes, /^Cut the AC leads of all units to 60 m$/);
  });

  it('every check whose findings can be over is mended by an edit, or says that building, site or customer decide', () => {
    const loose = CHECKS.filter(
      ({ id }) => !MENDED.has(id) && !CUSTOMER.has(id) && !/^(load|surge)\./.test(id),
    );
    // These ask for something, or name the work that has to be done.
    expect(loose.map(({ id }) => id).sort()).toEqual([
      'bank.join',
      'bonding.generator',
      'stack.controller',
      'stack.host',
      'stack.instruments',
    ]);
  });
});
