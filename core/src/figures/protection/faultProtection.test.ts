import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { Design } from '../../design/schema.ts';
import { compile } from '../../installation/compile.ts';
import { baseDesign, circuit1, forget, stack1 } from '../../testkit/designs.ts';
import { circuitFaults, faultProtection, filterLeakageMa, tripOf } from './faultProtection.ts';

/** The base design with a device and 20 m of 2.5 mm² on its circuit, on a service of 1 kA. */
function withCable(edit: (design: Design) => void = () => undefined): Design {
  const design = baseDesign();
  design.site.prospectiveFaultA = 1000;
  circuit1(design).device = { ratedA: 16, curve: 'C' };
  circuit1(design).cable = { lengthM: 20, areaMm2: 2.5 };
  edit(design);
  return design;
}

const answersOf = (design: Design) => {
  const [row] = faultProtection(compile(design, SAMPLE_TYPES));
  if (row === undefined) throw new Error('There is a circuit.');
  return Object.fromEntries(
    row.answers.map(({ source, answer }) => [
      source,
      answer.known
        ? [Number(answer.value.currentA.toFixed(2)), answer.value.lastsMs, answer.value.trip]
        : answer.missing.map((path) => path.join('/')),
    ]),
  );
};

/**
 * Cable: 2 · 20 m · 7.41 mΩ/m · (1 + 0.00393 · 70) = 0.37794 Ω. Grid: 230 / (230 / 1000 + 0.37794) = 378.33 A. One unit of 5 kVA gives
 * 2.5 · 5000 / 230 = 54.35 A for 100 ms; its voltage would drive 608.6 A. A set of 4 kVA on one line gives 3 · 4000 / 230 = 52.17 A for
 * 300 ms. The band of a C16 is 80 A to 160 A, of a B16 48 A to 80 A, of a D32 320 A to 640 A, of a B10 30 A to 50 A.
 */
describe('fault protection of a circuit', () => {
  it.each([
    {
      name: 'C16: the grid trips it, the inverter does not',
      edit: undefined,
      grid: [378.33, undefined, 'yes'],
      island: [54.35, 100, 'no'],
    },
    {
      // 0.37794 · 22 / 20 = 0.41573 Ω; 230 / (0.23 + 0.41573) = 356.18 A
      name: 'with 2 m left at its ends',
      edit: (d: Design) => void (d.wiring = { laying: { serviceLoopM: 2 } }),
      grid: [356.18, undefined, 'yes'],
      island: [54.35, 100, 'no'],
    },
    {
      name: 'B16: the inverter may trip it',
      edit: (d: Design) => void (circuit1(d).device = { ratedA: 16, curve: 'B' }),
      grid: [378.33, undefined, 'yes'],
      island: [54.35, 100, 'uncertain'],
    },
    {
      name: 'B10: the inverter trips it',
      edit: (d: Design) => void (circuit1(d).device = { ratedA: 10, curve: 'B' }),
      grid: [378.33, undefined, 'yes'],
      island: [54.35, 100, 'yes'],
    },
    {
      name: 'D32: not even the grid does for certain',
      edit: (d: Design) => void (circuit1(d).device = { ratedA: 32, curve: 'D' }),
      grid: [378.33, undefined, 'uncertain'],
      island: [54.35, 100, 'no'],
    },
    {
      name: 'two units share with a tolerance of 5 %: 2 · 54.35 / 1.05 = 103.52 A',
      edit: (d: Design) => {
        stack1(d).arrangement = 'parallel-single-phase';
        stack1(d).units = [{ id: 'u1' }, { id: 'u2' }];
      },
      grid: [378.33, undefined, 'yes'],
      island: [103.52, 100, 'uncertain'],
    },
    {
      name: 'heat takes nothing from it',
      edit: (d: Design) => void (d.site.equipmentHighestC = 45),
      grid: [378.33, undefined, 'yes'],
      island: [54.35, 100, 'no'],
    },
    {
      name: '500 m: 9.4485 Ω let 230 / 9.4485 = 24.34 A through, whatever feeds it',
      edit: (d: Design) => void (circuit1(d).cable = { lengthM: 500, areaMm2: 2.5 }),
      grid: [23.76, undefined, 'no'],
      island: [24.34, 100, 'no'],
    },
  ])('$name', ({ edit, grid, island }) => expect(answersOf(withCable(edit))).toEqual({ grid, island }));

  it('cables between the grid and the board count too: 20 m of 16 mm² and 30 m of 10 mm²', () => {
    const design = withCable(
      (d) =>
        void (d.wiring = {
          cables: [
            { id: 'k1', lineId: 'grid supply to service-board bus', lengthM: 20, areaMm2: 16 },
            { id: 'k2', lineId: 'bus s  bus to board b bus', lengthM: 30, areaMm2: 10 },
          ],
        }),
    );
    // 1.2751 · (20 · 1.15 + 30 · 1.83) mΩ = 99.33 mΩ, twice that out and back; 230 / (0.23 + 0.19866 + 0.37794) = 285.15 A.
    expect(answersOf(design).grid).toEqual([285.15, undefined, 'yes']);
    // What the inverters drive through the circuit is limited by themselves.
    expect(answersOf(design).island).toEqual([54.35, 100, 'no']);
  });

  it.each([
    // At 70 °C 20 m are 7.41 · 1.1965 · 20 = 177.32 mΩ: 230 / √(0.23² + 0.35464²), and 230 / √(0.23² + 0.17732²).
    ['one line: out and back, 544.1 A', ['L1'], 544.1],
    ['three bolted together: one conductor each, 792 A', ['L1', 'L2', 'L3'], 792],
  ] as const)('the most there is, in %s', (_, lines, mostA) => {
    const design = withCable((d) => {
      d.site.supply = 'three-phase';
      circuit1(d).lines = [...lines];
    });
    const [grid] = circuitFaults(compile(design, SAMPLE_TYPES), circuit1(design), 70);
    expect(grid?.answer.known === true ? grid.answer.value.mostA : undefined).toBeCloseTo(mostA, 1);
  });

  it('a generator gives what is planned for one whose type does not say', () => {
    const design = withCable(
      (d) => void d.generators.push({ id: 'g', name: 'Set', typeId: 'petrol-4k-1ph', stackId: 's' }),
    );
    expect(answersOf(design).generator).toEqual([52.17, 300, 'no']);
  });

  it('one of three lines gives its third of what it is rated for: 3 · 20000 / 3 / 230 = 86.96 A', () => {
    const design = withCable((d) => {
      d.site.supply = 'three-phase';
      d.generators.push({ id: 'g', name: 'Set', typeId: 'diesel-20k-3ph', stackId: 's' });
    });
    expect(answersOf(design).generator).toEqual([86.96, 300, 'uncertain']);
  });

  it.each([
    {
      name: 'the curve',
      edit: (d: Design) => void (circuit1(d).device = { ratedA: 16 }),
      missing: 'circuits/c1/device/curve',
    },
    {
      name: 'a fuse, which has no magnetic band',
      edit: (d: Design) => void (circuit1(d).device = { ratedA: 16, curve: 'gG' }),
      missing: 'circuits/c1/device/curve',
    },
    {
      name: 'the length of the cable',
      edit: (d: Design) => void (circuit1(d).cable = { areaMm2: 2.5 }),
      missing: 'circuits/c1/cable/lengthM',
    },
  ])('not known: $name', ({ edit, missing }) => {
    expect(answersOf(withCable(edit))).toEqual({ grid: [missing], island: [missing] });
  });

  it('each source asks for what it needs alone', () => {
    const design = withCable((d) => forget(d.site, 'prospectiveFaultA'));
    expect(answersOf(design)).toEqual({ grid: ['site/prospectiveFaultA'], island: [54.35, 100, 'no'] });
  });

  it('a board that no set feeds, and a set of several types, leave the island not known', () => {
    const alone = withCable((d) => {
      for (const one of d.partitions) forget(one, 'stackId');
    });
    expect(answersOf(alone).island).toEqual(['partitions/b/stackId']);
    const mixed = withCable((d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units = [{ id: 'u1' }, { id: 'u2', inverterTypeId: 'hybrid-3k-1ph' }];
    });
    expect(answersOf(mixed).island).toEqual(['stacks/s/units/u2/inverterTypeId']);
    expect(compile(mixed, SAMPLE_TYPES).stacks.map(filterLeakageMa)[0]?.known).toBe(false);
  });

  it('a stage that is shed at the transfer is dark in island', () => {
    const design = withCable((d) => {
      d.partitions.push({ id: 'x', name: 'Shed', kind: 'shed', stackId: 's', shedWhen: 'at-transfer' });
      circuit1(d).partitionId = 'x';
    });
    expect(faultProtection(compile(design, SAMPLE_TYPES))).toEqual([]);
  });

  it('circuits that are dark in island are not asked about', () => {
    const design = withCable((d) => void (circuit1(d).partitionId = 'g'));
    expect(faultProtection(compile(design, SAMPLE_TYPES))).toEqual([]);
  });

  it('the filters of two units of 3 mA leak 6 mA together; a type that does not say leaks something not known', () => {
    const design = withCable((d) => void (stack1(d).units = [{ id: 'u1' }, { id: 'u2' }]));
    const leakage = (of: Design) => compile(of, SAMPLE_TYPES).stacks.map(filterLeakageMa)[0];
    expect(leakage(design)).toEqual({ known: true, value: 6 });
    expect(leakage(withCable((d) => forget(stack1(d), 'inverterTypeId')))?.known).toBe(false);
  });

  it('a source that gives up sooner than the release takes trips nothing, however large its current', () =>
    expect(tripOf({ ratedA: 6, curve: 'B' }, 1000, 19)).toBe('no'));

  it('more current never makes a trip less certain, a larger device never more', () => {
    const rank = { no: 0, uncertain: 1, yes: 2 };
    const curve = fc.constantFrom('B' as const, 'C' as const, 'D' as const);
    const ampere = fc.double({ min: 1, max: 2000, noNaN: true });
    fc.assert(
      fc.property(curve, ampere, ampere, fc.double({ min: 1, max: 125, noNaN: true }), (of, a, b, ratedA) => {
        const [low, high] = [Math.min(a, b), Math.max(a, b)];
        const trip = (amperes: number, rated = ratedA) =>
          rank[tripOf({ ratedA: rated, curve: of }, amperes, 100)];
        expect(trip(high)).toBeGreaterThanOrEqual(trip(low));
        expect(trip(low, ratedA * 2)).toBeLessThanOrEqual(trip(low));
      }),
    );
  });
});
