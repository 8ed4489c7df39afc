import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { analyse } from '../checks/analyse.ts';
import type { Design } from '../design/schema.ts';
import { compile } from '../installation/compile.ts';
import { bonded, variantOf } from '../testkit/bonding.ts';
import { baseDesign, circuit1, deepFreeze, item1, threePhase } from '../testkit/designs.ts';
import { withStrings } from '../testkit/wired.ts';
import { takeTypes, typesForDevices } from './typesForDevices.ts';

function jobWith(edit: (design: Design) => void): Design {
  const design = baseDesign();
  bonded(design);
  edit(design);
  return design;
}

/** What is chosen for each place, by its label. */
function chosen(
  edit: (design: Design) => void,
  catalogue: readonly EquipmentType[] = SAMPLE_TYPES,
): Readonly<Record<string, string>> {
  const { found, without } = typesForDevices(compile(deepFreeze(jobWith(edit)), catalogue), catalogue);
  const pairs: (readonly [string, string])[] = [
    ...found.map(({ label, type }) => [label, type.id] as const),
    ...without.map((label) => [label, 'none'] as const),
  ];
  return Object.fromEntries(pairs);
}

describe('a type for every device that has none', () => {
  it('by load, kind and poles', () => {
    const found = chosen((d) => withStrings(d, 8));
    // 10 A of heater: 10 A. 5000 / 230 = 21.7 A of a unit: 25 A; its grid side the same.
    expect(found['device of Heat']).toBe('breaker-b10-1p');
    expect(found['output device of unit 1']).toBe('breaker-c25-1p');
    expect(found['main of Backup output']).toBe('breaker-b10-1p');
    // 14.1 A · 1.25 = 17.6 A of the string, 8 · 38.8 V in the cold below 400 V: a switch made for direct current.
    expect(found['DC switch of South roof']).toBe('dc-isolator-32a-2p');
    expect(found['service main']).toBeUndefined();
  });

  it.each([
    ['a rating that is stated', { ratedA: 16 }, 'breaker-b16-1p'],
    ['a curve that is stated', { ratedA: 16, curve: 'C' as const }, 'breaker-c16-1p'],
    ['a rating that no type has', { ratedA: 13 }, 'none'],
  ])('keeps to %s', (_, device, type) =>
    expect(chosen((d) => (circuit1(d).device = device))['device of Heat']).toBe(type),
  );

  // A motor of 2300 W: 10 A, five times that as it starts is 50 A, above 3 · 16 A and below 5 · 16 A: curve B could open, C cannot.
  it('lets a start pass', () =>
    expect(
      chosen((d) => {
        circuit1(d).device = { ratedA: 16 };
        item1(d).startClass = 'capacitor-motor';
      })['device of Heat'],
    ).toBe('breaker-c16-1p'));

  // 2300 W over three lines at 230 V: 3.3 A, and the smallest with three poles or more is of 6 A.
  it('has a pole for every line', () =>
    expect(
      chosen((d) => {
        threePhase(d, [1, 1, 1]);
        circuit1(d).lines = ['L1', 'L2', 'L3'];
      })['device of Heat'],
    ).toBe('breaker-c6-4p'));

  it('the main of a board is no smaller than the devices of its circuits', () =>
    expect(chosen((d) => (circuit1(d).device = { ratedA: 32 }))['main of Backup output']).toBe(
      'breaker-c32-1p',
    ));

  // 1.5 mm² by method C carries 19.5 A at 30 °C: 20 A would be above it.
  it('no device is larger than a conductor of stated size carries', () => {
    const load = (d: Design, areaMm2: number): void => {
      item1(d).runningW = 3700;
      circuit1(d).cable = { lengthM: 5, areaMm2 };
    };
    expect(chosen((d) => load(d, 1.5))['device of Heat']).toBe('none');
    expect(chosen((d) => load(d, 2.5))['device of Heat']).toBe('breaker-c20-1p');
  });

  it.each([
    ['opens too little', { breakingA: 4000 }],
    ['takes thinner conductors only', { terminals: [{ port: 'line', minMm2: 1, maxMm2: 1.5 }] }],
    ['is made for too low a voltage', { ratedV: 120 }],
    ['is made for direct current', { device: 'dc-breaker' as const }],
    ['is an isolator', { device: 'isolator' as const }],
  ])('passes over one that %s', (_, over) => {
    const own = variantOf('protective-device', 'breaker-b10-1p', over);
    const edit = (d: Design): void => {
      d.site.prospectiveFaultA = 6000;
      circuit1(d).cable = { lengthM: 5, areaMm2: 2.5 };
    };
    const rest = SAMPLE_TYPES.filter(({ kind }) => kind !== 'protective-device');
    expect(chosen(edit, [...rest, own])['device of Heat']).toBe('none');
    const good = variantOf('protective-device', 'breaker-b10-1p', {});
    expect(chosen(edit, [...rest, good])['device of Heat']).toBe('breaker-b10-1p-own');
  });

  it.each([
    ['says where what its type opens could not be held', undefined, [['site', 'prospectiveFaultA']]],
    ['has nothing to say where every source is known', 6000, []],
  ])('%s', (_, prospectiveFaultA, missing) => {
    const design = jobWith((d) => (d.site.prospectiveFaultA = prospectiveFaultA));
    const { found } = typesForDevices(compile(deepFreeze(design), SAMPLE_TYPES), SAMPLE_TYPES);
    expect(found.find(({ label }) => label === 'device of Heat')?.faultMissing).toEqual(missing);
  });

  it('what is taken is there, has a type, and stands against no check of wiring', () => {
    const design = jobWith((d) => {
      d.site.prospectiveFaultA = 6000;
      circuit1(d).cable = { lengthM: 5, areaMm2: 2.5 };
      withStrings(d, 8);
    });
    const { found } = typesForDevices(compile(design, SAMPLE_TYPES), SAMPLE_TYPES);
    let made = 0;
    takeTypes(design, found, () => `q${(made += 1)}`);
    expect(circuit1(design).device).toEqual({ typeId: 'breaker-b10-1p' });
    const after = analyse(deepFreeze(JSON.parse(JSON.stringify(design)) as Design), SAMPLE_TYPES);
    expect(typesForDevices(after.installation, SAMPLE_TYPES)).toEqual({ found: [], without: [] });
    expect(
      after.findings
        .filter(({ check, state }) => check.startsWith('wiring.') && state !== 'within' && state !== 'tight')
        .map(({ check, subject }) => `${check} ${subject.label}`),
    ).toEqual([]);
  });
});
