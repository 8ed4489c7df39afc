import { capabilityWithout } from './capability.ts';
import { describe, expect, it } from 'vitest';
import { analyse } from '../../checks/analyse.ts';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { Design } from '../../design/schema.ts';
import { circuit1, baseDesign, heater, stack1 } from '../../testkit/designs.ts';
import { compile } from '../../installation/compile.ts';
import type { CompiledStack, Installation } from '../../installation/installation.ts';
import { unitPowersW } from './unitPower.ts';

/** Three (or more) split-phase units in a ring on 120/208 V: unit 1 between L1 and L2, unit 2 between L2 and L3, unit 3 between L3 and L1. */
function ring(
  count: number,
  edit?: (design: Design) => void,
): { installation: Installation; stack: CompiledStack } {
  const design = baseDesign();
  design.site.supply = 'three-phase';
  design.site.lineVoltageV = 120;
  design.site.frequencyHz = 60;
  const stack = stack1(design);
  stack.inverterTypeId = 'hybrid-8k-ring';
  stack.arrangement = 'three-phase-ring';
  stack.units = Array.from({ length: count }, (_, index) => ({
    id: `u${index + 1}`,
    line: (['L1', 'L2', 'L3'] as const)[index % 3] ?? 'L1',
    barPlace: 1,
  }));
  circuit1(design).items = [heater('i1')];
  edit?.(design);
  const installation = compile(design, SAMPLE_TYPES);
  const [compiled] = installation.stacks;
  if (compiled === undefined) throw new Error('There is a stack.');
  return { installation, stack: compiled };
}

function perLineVa(count: number, lostUnitId?: string): readonly number[] {
  const found = capabilityWithout(ring(count).stack, lostUnitId);
  if (!found.known) throw new Error(JSON.stringify(found.missing));
  return found.value.perLineVa;
}

describe('three-phase from split-phase units in a ring', () => {
  it('each line is fed by two halves of 4 kVA, with the sharing tolerance: 2 · 4000 / 1.05 = 7619 VA', () => {
    for (const va of perLineVa(3)) expect(va).toBeCloseTo(7619.05, 1);
  });

  it('six units double it', () => {
    for (const va of perLineVa(6)) expect(va).toBeCloseTo(15238.1, 1);
  });

  it('without unit 1 (L1 to L2) those two lines have one half left, 4000 VA, and L3 keeps both', () => {
    const [l1, l2, l3] = perLineVa(3, 'u1');
    expect([l1, l2]).toEqual([4000, 4000]);
    expect(l3).toBeCloseTo(7619.05, 1);
  });

  it('3 kW on L1 is taken by the two units that meet there, half each; the third rests', () => {
    const { installation, stack } = ring(3);
    if (!installation.supply.known) throw new Error('There is a supply.');
    const watts = unitPowersW(stack, installation.supply.value, () => 1, [3000, 0, 0]);
    expect(watts).toEqual([1500, 0, 1500]);
    const lost = unitPowersW(stack, installation.supply.value, () => 1, [3000, 0, 0], 'u1');
    expect(lost).toEqual([0, 0, 3000]);
  });

  it('a storage inverter without outlet carries nothing in island and still charges from the grid: 3000 / 230 more', () => {
    const design = baseDesign();
    Object.assign(stack1(design), {
      inverterTypeId: 'ac-storage-3k6-1ph',
      arrangement: 'ac-coupled-storage',
    });
    stack1(design).gridChargeW = 3000;
    const { findings, installation } = analyse(design, SAMPLE_TYPES);
    const [compiled] = installation.stacks;
    const found = compiled === undefined ? undefined : capabilityWithout(compiled);
    expect(found?.known === true && [found.value.totalVa, found.value.unitCount]).toEqual([0, 1]);
    const service = findings.find((one) => one.check === 'grid.service' && one.mode === 'on-grid');
    expect(service?.value).toBeCloseTo((2300 + 3000) / 230, 9);
    expect(findings.find((one) => one.check === 'load.continuous' && one.mode === 'island')?.state).toBe(
      'over',
    );
  });

  it('what makes no AC in island carries nothing', () => {
    const { stack } = ring(1, (d) => {
      d.site.supply = 'single-phase';
      Object.assign(stack1(d), {
        inverterTypeId: 'dc-box-6k',
        arrangement: 'dc-side-box',
        units: [{ id: 'u1' }],
      });
    });
    const found = capabilityWithout(stack);
    expect(found.known && found.value.totalVa).toBe(0);
  });
});
