import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { compile } from '../installation/compile.ts';
import { addLoad, bank1, baseDesign, circuit1, item1, stack1, threePhase } from '../testkit/designs.ts';
import { banksApart } from './banksApart.ts';
import { runOutage } from './outage.ts';
import { outageRun, plantsOf } from './rehearse.ts';

/** A unit with its own bank on each of three lines, and two on L1: 1200 W, 600 W and 300 W all day long. */
function threeLines(edit: (design: Design) => void = () => undefined) {
  const design = baseDesign();
  threePhase(design, [2, 1, 1]);
  bank1(design).serves = 'one-unit';
  Object.assign(circuit1(design), { lines: ['L1'] });
  const steady = {
    powerFactor: 1,
    demandFactor: 1,
    hoursPerDay: 24,
    quantity: 1,
    startClass: 'steady' as const,
  };
  Object.assign(item1(design), { ...steady, runningW: 1200 });
  addLoad(design, 'c2', ['L2'], { ...steady, runningW: 600 });
  addLoad(design, 'c3', ['L3'], { ...steady, runningW: 300 });
  edit(design);
  const installation = compile(design, SAMPLE_TYPES);
  const [set] = plantsOf(installation);
  if (set?.plant.known !== true) throw new Error(JSON.stringify(set?.plant));
  return { installation, plant: set.plant.value, apart: banksApart(set.plant.value, set.compiled) };
}

describe('banks that are spent by themselves', () => {
  it('see the load of their line, shared by the units on it', () => {
    const { apart, plant } = threeLines();
    expect(apart.map(({ label }) => label)).toEqual(['L1: units 1, 2, each', 'L2: unit 3', 'L3: unit 4']);
    const watts = apart.map(({ plant: one }) =>
      one.boards.reduce((sum, { minuteW }) => sum + (minuteW[0] ?? 0), 0),
    );
    [600, 600, 300].forEach((expected, at) => expect(watts[at]).toBeCloseTo(expected, 6));
    // The hardest-working unit is the one that the limits look at, and carries 600 W of its 5000.
    expect(plant.boards.reduce((sum, { minuteW }) => sum + (minuteW[0] ?? 0), 0)).toBeCloseTo(600, 6);
    // One unit of 5000 VA stands on L3.
    expect(apart[2]?.plant.limits?.lineVa[0]).toBeCloseTo(5000, 6);
  });

  it('see the part of a generator that reaches their line', () => {
    // 20 kVA at pf 0.8 on three lines: 16 kW for four units; 6667 VA a line, shared by the two on L1.
    const shared = threeLines((d) => {
      d.generators.push({
        id: 'g',
        name: 'Set',
        typeId: 'diesel-20k-3ph',
        connection: 'generator-port',
        stackId: 's',
      });
      Object.assign(stack1(d), { generatorChargeW: 1000 });
    });
    const engines = shared.apart.map(({ plant: { generator } }) => generator);
    expect(engines.map((one) => Math.round(one?.mostW ?? 0))).toEqual([4000, 4000, 4000]);
    expect(engines.map((one) => Math.round(one?.lineVa[0] ?? 0))).toEqual([3333, 6667, 6667]);
    // One of a single line on L2: nothing of it reaches the others, and unit 3 has all of it.
    const alone = threeLines((d) => {
      d.generators.push({
        id: 'g',
        name: 'Set',
        typeId: 'petrol-4k-1ph',
        line: 'L2',
        connection: 'generator-port',
        stackId: 's',
      });
      Object.assign(stack1(d), { generatorChargeW: 1000 });
    });
    const { generator } = alone.apart[1]?.plant ?? {};
    expect(alone.apart.map((one) => one.plant.generator === undefined)).toEqual([true, false, true]);
    expect(generator?.lineVa[0]).toBeCloseTo(4000, 6);
    // One unit stands on L2: of the 1000 W that each takes, 1000 W in all, and a quarter of it for each bank of the four.
    expect(alone.plant.generator?.chargeW).toBeCloseTo(250, 6);
    expect(generator?.chargeW).toBeCloseTo(1000, 6);
    const { fuelLPerKwh } = SAMPLE_TYPES.find((type) => type.id === 'petrol-4k-1ph') as {
      fuelLPerKwh: number;
    };
    expect(generator?.lPerKwh).toBeCloseTo(fuelLPerKwh, 9);
  });

  it('last as long as their own load lets them', () => {
    const { apart, installation } = threeLines();
    const lasted = apart.map(({ plant }) => {
      const run = outageRun(plant, installation, { hours: 300, fromFull: true });
      return runOutage(plant, run).lastedMinutes / 60;
    });
    const [first] = apart;
    if (first === undefined) throw new Error('There are banks.');
    const { fullWh, floorSoc, idleW, efficiency } = first.plant;
    const hours = (loadW: number): number =>
      (fullWh * (1 - floorSoc)) / (loadW / (efficiency[0] ?? 1) + idleW);
    [600, 600, 300].forEach((loadW, at) => expect(lasted[at]).toBeCloseTo(hours(loadW), 1));
  });

  it('are one where all share, and where there is one bank for all', () => {
    expect(threeLines((design) => void (bank1(design).serves = 'all-units')).apart).toEqual([]);
  });
});
