import { islandBoard } from '../loads/boards.ts';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { Design } from '../../design/schema.ts';
import { procedureFor } from '../../procedure/generate.ts';
import { partsOf } from '../../schedules/parts.ts';
import { deliveryLines } from '../../installation/delivery.ts';
import { addLoad, bank1, baseDesign, circuit1, item1, threePhase } from '../../testkit/designs.ts';
import { autonomy } from './autonomy.ts';
import { bankAtLoad, type BankLoad, type BankView } from './bankAtLoad.ts';
import { bankDraw, bankLoadsW } from './bankDraw.ts';
import { compile } from '../../installation/compile.ts';
import type { CompiledStack } from '../../installation/installation.ts';

/** One unit a line; 2300 W on L1 that starts with half as much again, 1150 W on L2 that starts threefold, nothing on L3. */
function uneven(edit: (design: Design) => void = () => undefined): Design {
  const design = baseDesign();
  threePhase(design, [1, 1, 1]);
  const start = { startDurationS: 2, startPowerFactor: 1 };
  Object.assign(item1(design), { ...start, startMultiple: 1.5 });
  addLoad(design, 'c2', ['L2'], { ...start, runningW: 1150, startMultiple: 3 });
  edit(design);
  return design;
}
const own = (design: Design): void => void (bank1(design).serves = 'one-unit');

function compiledOf(design: Design): CompiledStack {
  const [stack] = compile(design, SAMPLE_TYPES).stacks;
  if (stack === undefined) throw new Error('no stack');
  return stack;
}
const drawOf = (design: Design, linesW: readonly number[], lostUnitId?: string) => {
  const compiled = compiledOf(design);
  if (!compiled.supply.known) throw new Error('no supply');
  const inputs = {
    compiled,
    supply: compiled.supply.value,
    type: { efficiency: 0.94, ratedW: 5000 },
    lostUnitId,
  };
  return { ...bankDraw(inputs, linesW), loads: bankLoadsW(inputs, linesW).map((one) => one.powersW) };
};

describe('what is drawn from a bank', () => {
  it('one bank for all: 2300 + 1150 = 3450 W, which is 1.5 times what the hardest-working unit gives', () => {
    const { watts, evenUnits, loads } = drawOf(uneven(), [2300, 1150, 0]);
    expect([watts, evenUnits]).toEqual([3450, 1.5]);
    expect(loads).toEqual([[2300 / 0.94, 1150 / 0.94, 0]]);
  });

  it('one each: the hardest-working unit alone, and each unit by itself', () => {
    const { watts, evenUnits, loads } = drawOf(uneven(own), [2300, 1150, 0]);
    expect([watts, evenUnits]).toEqual([2300, 1]);
    expect(loads).toEqual([
      [2300 / 0.94, 0, 0],
      [0, 1150 / 0.94, 0],
      [0, 0, 0],
    ]);
  });

  it('with two units on L1, losing one makes the other carry all of it: 3 times the hardest becomes 1.5', () => {
    const design = uneven((d) => threePhase(d, [2, 1, 1]));
    expect(drawOf(design, [2300, 1150, 0]).evenUnits).toBe(3);
    expect(drawOf(design, [2300, 1150, 0], 'L1-1').evenUnits).toBe(1.5);
  });
});

describe('starts as the battery feels them', () => {
  it('a start on one line is on that line: 2300 + 3 · 1150 = 5750 W in all, and on L1 1.5 · 2300 = 3450 W', () => {
    const board = islandBoard(compiledOf(uneven()));
    const starts = board.known ? board.value.batteryStarts : [];
    expect(starts.map(({ watts, linesW, label }) => [label, watts, linesW])).toEqual([
      ['Heater c2-i (c2)', 5750, [2300, 3450, 0]],
      ['Heater i1 (Heat)', 4600, [3450, 1150, 0]],
    ]);
  });

  it('a line that was measured above everything that starts there keeps what was measured: 4000 W on L1', () => {
    const design = uneven((d) => {
      const reading = { id: 'r', line: 'L1' as const, takenAt: '2026-11-02T10:00:00Z', by: 'Dana' };
      circuit1(d).clampReadings = [{ ...reading, currentA: 4000 / 230 }];
    });
    const board = islandBoard(compiledOf(design));
    const [first] = board.known ? board.value.batteryStarts : [];
    expect(first?.linesW.map(Math.round)).toEqual([4000, 3450, 0]);
    expect(first?.watts).toBeCloseTo(7450, 6);
  });

  const seen = (design: Design, load: BankLoad, view?: BankView) => {
    const found = bankAtLoad(compiledOf(design), load, view);
    if (!found.known || found.value === 'none' || found.value.share.kind !== 'solved')
      throw new Error('not solved');
    return { ...found.value, share: found.value.share };
  };

  it('of one bank for all the start with the most power is shown, with its currents where it flows', () => {
    const { label, loadW, share } = seen(uneven(), { kind: 'largest-start' });
    expect([label, loadW]).toEqual(['Heater c2-i (c2)', 5750]);
    const [l1, l2, l3] = share.taps;
    expect((l2?.voltageV ?? 0) * (l2?.currentA ?? 0)).toBeCloseTo(3450 / 0.94, 6);
    expect(l3?.currentA).toBe(0);
    // Leads of 1.5 m, 70 mm²: 1.61221 mΩ between the bars and each inverter; the bars themselves have next to nothing.
    const barV = (l1?.voltageV ?? 0) + (l1?.currentA ?? 0) * 0.00161221;
    expect(l2?.voltageV).toBeCloseTo(barV - (l2?.currentA ?? 0) * 0.00161221, 1);
  });

  /** Four modules of 13.263 mΩ with their leads side by side, and 1.612 mΩ to the inverter; the bars aside. */
  const drawnA = (watts: number): number => {
    const ohm = 0.013263 / 4 + 0.001612;
    return (51.2 - Math.sqrt(51.2 ** 2 - 4 * ohm * watts)) / (2 * ohm);
  };

  it('of banks of their own the one whose modules work hardest, or the one that is asked for', () => {
    const hardest = seen(uneven(own), { kind: 'continuous' });
    expect([hardest.ofUnitId, hardest.loadW]).toEqual(['L1-1', 3450]);
    expect(hardest.share.totalA).toBeCloseTo(drawnA(2300 / 0.94), 1);
    const other = seen(uneven(own), { kind: 'continuous' }, { ofUnitId: 'L2-1' });
    expect(other.share.totalA).toBeCloseTo(drawnA(1150 / 0.94), 1);
    expect(seen(uneven(own), { kind: 'largest-start' }).ofUnitId).toBe('L1-1');
    const typed = seen(uneven(own), { kind: 'typed', watts: 6900 });
    expect(typed.share.totalA).toBeCloseTo(drawnA(4600 / 0.94), 1);
  });
});

describe('a bank for each inverter', () => {
  it('lasts as long as that of the hardest-working one: 8192 Wh / (2/3 · 1725 W / 0.94 + 50 W) = 6.43 h', () => {
    const found = autonomy(compiledOf(uneven(own)), 'reserve', 'average');
    expect(found?.known === true ? found.value.hours : 0).toBeCloseTo(
      8192 / ((2 / 3) * (1725 / 0.94) + 50),
      6,
    );
  });

  it('comes three times over: twelve modules are delivered, each line with an id of its own', () => {
    const modules = deliveryLines(uneven(own), SAMPLE_TYPES).filter((line) => line.id.startsWith('module-'));
    expect(modules).toHaveLength(12);
    expect(new Set(modules.map((line) => line.id)).size).toBe(12);
    expect(modules.at(-1)?.what).toContain('module 4 of unit 3 of Stack');
    const design = uneven(own);
    Object.assign(bank1(design).modules[0] ?? {}, { fitted: 'taken-out' });
    Object.assign(bank1(design).modules[1] ?? {}, { batteryTypeId: 'lfp-51v-50ah' });
    const counts = partsOf(design, SAMPLE_TYPES).filter((one) => one.what.includes('Ah'));
    expect(counts.map((one) => one.count)).toEqual([3, 6]);
  });

  it('gives its test load by itself: one module, 0.94 · 44.8 V · 50 A = 2105.6 W, so 43.75 A at 51.2 V', () => {
    const small = (serves: boolean) =>
      uneven((d) => {
        threePhase(d, [2, 2, 2]);
        bank1(d).modules = [{ id: 'm1' }];
        if (serves) own(d);
      });
    const fullOn = (design: Design) =>
      procedureFor(design, SAMPLE_TYPES).steps.find((one) => one.id === 'load-s-L1-100');
    const battery = (design: Design) => fullOn(design)?.readings.find((one) => one.id === 'battery-current');
    const middle = (design: Design): number => {
      const { low = 0, high = 0 } = battery(design)?.expected ?? {};
      return (low + high) / 2;
    };
    // Two units on L1: twice the load with a bank each, and the same current from each bank.
    expect(fullOn(small(false))?.instructions[0]).toContain('2.11 kW');
    expect(fullOn(small(true))?.instructions[0]).toContain('4.21 kW');
    expect(middle(small(false))).toBeCloseTo(43.75, 6);
    expect(middle(small(true))).toBeCloseTo(43.75, 6);
    expect(battery(small(true))?.label).toBe('Battery current of each bank');
  });
});
