import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { Design } from '../../design/schema.ts';
import { compile } from '../../installation/compile.ts';
import { sizeLine } from '../../sizing/sizeLine.ts';
import { addLoad, baseDesign, circuit1, item1, stack1, threePhase } from '../../testkit/designs.ts';
import { variantOf, withSwitchedSet } from '../../testkit/bonding.ts';
import { withMeters } from '../../testkit/wired.ts';
import { cableLines } from './cableLines.ts';
import { carriedBy } from './carriedBy.ts';

function of(label: string, edit: (design: Design) => void = () => undefined) {
  const design = baseDesign();
  edit(design);
  const installation = compile(design, SAMPLE_TYPES);
  const lines = cableLines(installation);
  const line = lines.known ? lines.value.find((one) => one.label.includes(label)) : undefined;
  const carried = line && carriedBy(installation, line);
  if (line === undefined || carried?.known !== true) throw new Error(`${label} is not carried.`);
  return { installation, line, carried: carried.value };
}

/** A transfer device whose controls take 36 VA, with changes. */
const withControls =
  (more: object) =>
  (design: Design): void => {
    design.types.push(
      variantOf('transfer-device', 'transfer-200a-split', { id: 'own', controlVa: 36, ...more }),
    );
    stack1(design).transferDeviceTypeId = 'own';
  };

const twoUnits = (design: Design): void => {
  stack1(design).arrangement = 'parallel-single-phase';
  stack1(design).units = [{ id: 'u1' }, { id: 'u2' }];
};

type Row = readonly [
  name: string,
  label: string,
  edit: ((design: Design) => void) | undefined,
  amperes: number,
];

const ROWS: readonly Row[] = [
  ['an output: 5000 VA / 230 V', 'unit 1, backup output', undefined, 21.739],
  // Three heaters and 2000 W of charging: (6900 + 2000) / 230.
  [
    'a grid port with loads and charging',
    'unit 1, grid port',
    (d: Design) => void (item1(d).quantity = 3),
    38.696,
  ],
  // Two units: their part of 12 heaters and 2 · 2000 W is (27600 + 4000) / 2 · 1.05 / 230.
  [
    'one of two grid ports, with what they may differ',
    'unit 1, grid port',
    (d: Design) => {
      twoUnits(d);
      item1(d).quantity = 12;
    },
    72.13,
  ],
  ['the service: heater and charging, 4300 / 230', 'grid to service board', undefined, 18.696],
  ['a board', 'to Backup output', undefined, 10],
  // 36 VA / 230 V
  [
    'controls fed from the board',
    'to transfer device, controls',
    withControls({ controlSupply: 'from-board' }),
    0.15652,
  ],
  // 36 VA / 24 V
  [
    'controls fed from the inverter',
    'control output to transfer device, controls',
    withControls({ controlSupply: 'from-inverter', controlCurrent: 'dc', controlV: 24 }),
    1.5,
  ],
  // 5 VA / 230 V
  ['the supply of a meter', 'service board to grid meter', (d: Design) => void withMeters(d), 0.02174],
  [
    'of one of the load, from its board',
    'Backup output to load meter',
    (d: Design) => void withMeters(d),
    0.02174,
  ],
  // 5000 / (0.94 · 44.8)
  ['a battery lead at the lowest voltage', 'unit 1, battery port', undefined, 118.73],
  [
    'the same while it charges harder than that',
    'unit 1, battery port',
    (d: Design) => void (stack1(d).chargeCurrentA = 130),
    130,
  ],
  // 4000 VA / 230 V on its plate.
  ['a generator', 'Set to', (d: Design) => withSwitchedSet(d, 'solid'), 17.39],
];

describe('what a cable carries', () => {
  it.each(ROWS)('%s', (_, label, edit, amperes) =>
    expect(of(label, edit).carried.currentA).toBeCloseTo(amperes, 1),
  );

  it('a set that trips above the lowest voltage of its bank draws no more than it does there', () => {
    const { carried } = of('unit 1, battery port', (d) => {
      const type = variantOf('inverter', 'hybrid-5k-1ph', { lowVoltageTripV: 48 });
      d.types.push(type);
      stack1(d).inverterTypeId = type.id;
    });
    // 5000 / (0.94 · 48)
    expect(carried.currentA).toBeCloseTo(110.82, 1);
  });

  it.each([
    // 5000 / (0.94 · 44.8) = 118.7 A is more than 100 A: whatever the setting is, it does not govern.
    [100, true],
    [130, false],
  ])('without a charge setting, where the type charges with %d A at most', (maxChargeA, isKnown) => {
    const design = baseDesign();
    const type = variantOf('inverter', 'hybrid-5k-1ph', { maxChargeA });
    design.types.push(type);
    stack1(design).inverterTypeId = type.id;
    Reflect.deleteProperty(stack1(design), 'chargeCurrentA');
    const installation = compile(design, SAMPLE_TYPES);
    const lines = cableLines(installation);
    const carried = ['unit 1, battery port', 'lead of module 1 '].map((label) => {
      const line = lines.known ? lines.value.find((one) => one.label.includes(label)) : undefined;
      return line && carriedBy(installation, line)?.known;
    });
    expect(carried).toEqual([isKnown, isKnown]);
  });

  it('module leads carry what the bank gives them: about a quarter of it each', () => {
    const leads = [1, 2, 3, 4].map((number) => of(`lead of module ${number} `).carried.currentA);
    // 118.7 A at the lowest voltage among four.
    expect(leads.reduce((sum, one) => sum + one, 0)).toBeCloseTo(118.7, 0);
    expect(Math.max(...leads)).toBeLessThan(35);
  });

  it('a circuit between two of three lines stands on √3 times the voltage', () => {
    const { carried } = of('pair', (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'pair', ['L1', 'L2']);
    });
    // 2300 W / 398.4 V = 5.774 A on each of both.
    expect(carried).toMatchObject({ system: 'two-line', loadedConductors: 2 });
    expect(carried.volts).toBeCloseTo(398.37, 1);
    expect(carried.currentA).toBeCloseTo(5.774, 2);
  });

  it('loses voltage at the angle of its load to the voltage between its lines', () => {
    const { carried } = of('pair', (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'pair', ['L1', 'L2'], { powerFactor: 0.6, startClass: 'compressor' });
    });
    // 2300 W / 0.6 = 3833 VA, over 398.4 V 9.6225 A, by L1 30° away from that angle; six times that at 0.5 while it starts.
    expect(carried.powerFactor).toBeCloseTo(0.6, 9);
    expect(carried.currentA).toBeCloseTo(9.6225, 3);
    expect(carried.start?.powerFactor).toBeCloseTo(0.5, 9);
    expect(carried.start?.currentA).toBeCloseTo(57.735, 2);
  });

  it('a start of less than a tenth of a second is inrush, a longer one is not', () => {
    const start = (startClass: 'transformer' | 'compressor') =>
      of('Heat', (d) => void (item1(d).startClass = startClass)).carried.start;
    expect(start('transformer')).toBeUndefined();
    // Six times 10 A.
    expect(start('compressor')?.currentA).toBeCloseTo(60, 5);
  });

  it('battery leads are of flexible copper, fixed wiring is not', () => {
    const dropOf = (label: string, edit: (design: Design) => void): number => {
      const { installation, line } = of(label, edit);
      const sized = sizeLine(installation, line);
      const answers = sized?.known === true ? (sized.value.chosen?.answers ?? []) : [];
      return answers.find(({ test }) => test === 'drop')?.value ?? NaN;
    };
    // 1.5 m of 70 mm²: class 5 0.272 mΩ/m · 1.1965; circuit: class 2 0.268.
    expect(dropOf('unit 1, battery port', () => undefined)).toBeCloseTo(
      (2 * 1.5 * 118.73 * 0.272e-3 * 1.1965) / 44.8,
      6,
    );
    expect(dropOf('Heat', (d) => void (circuit1(d).cable = { lengthM: 10, areaMm2: 70 }))).toBeCloseTo(
      (2 * 10 * 10 * 0.268e-3 * 1.1965) / 230,
      7,
    );
  });
});

it('whether the cable of controls carries AC or DC is asked for, and not taken for granted', () => {
  const design = baseDesign();
  withControls({ controlSupply: 'from-inverter', controlV: 24 })(design);
  const installation = compile(design, SAMPLE_TYPES);
  const lines = cableLines(installation);
  const line = lines.known ? lines.value.find(({ use }) => use === 'control') : undefined;
  expect(line && carriedBy(installation, line)).toMatchObject({
    known: false,
    missing: [['types', 'own', 'controlCurrent']],
  });
});
