import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { compile } from '../installation/compile.ts';
import { addLoad, bank1, baseDesign, circuit1, item1, stack1, threePhase } from '../testkit/designs.ts';
import { banksApart } from './banksApart.ts';
import type { OutageRun } from './outageRun.ts';
import { runOutage } from './outage.ts';
import { runApart } from './runApart.ts';
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

/** A set of 20 kVA that starts by itself, with 1000 W of charging for each unit. */
const withSet = (design: Design): void => {
  design.generators.push({
    id: 'g',
    name: 'Set',
    typeId: 'diesel-20k-3ph',
    connection: 'generator-port',
    stackId: 's',
  });
  Object.assign(stack1(design), { generatorChargeW: 1000 });
};

describe('banks side by side', () => {
  const played = (edit?: (design: Design) => void, more: Partial<OutageRun> = {}) => {
    const { apart, installation } = threeLines(edit);
    const [first] = apart;
    if (first === undefined) throw new Error('There are banks.');
    const run = { ...outageRun(first.plant, installation, { hours: 300, fromFull: true }), ...more };
    return { apart, run, results: runApart(apart, run), first };
  };

  it('without an engine are what each is by itself', () => {
    const { apart, run, results } = played();
    apart.forEach(({ plant }, at) => {
      const alone = runOutage(plant, run);
      expect(results[at]?.lastedMinutes).toBeCloseTo(alone.lastedMinutes, 6);
      expect(results[at]?.energy.served).toBeCloseTo(alone.energy.served, 4);
    });
  });

  it('have one engine: the bank that is spent first calls it for all, and it runs until the last has enough', () => {
    const { apart, run, results } = played(withSet, { minutes: 6000 });
    const levels: number[][] = [];
    runApart(apart, run, { at: 2, see: (_, now) => levels.push([now.soc, now.isRunning ? 1 : 0]) });
    const [busy, , idle] = apart;
    if (busy === undefined || idle === undefined) throw new Error('There are banks.');
    // Of 600 W and 300 W: P / η + idle. The first is at its level when the third has spent less by the ratio of the two.
    const draw = (watts: number): number => watts / (busy.plant.efficiency[0] ?? 1) + busy.plant.idleW;
    const fellTo = 1 - ((1 - run.generatorFromSoc) * draw(300)) / draw(600);
    const firstOn = levels.find(([, isOn]) => isOn === 1);
    expect(firstOn?.[0]).toBeCloseTo(fellTo, 2);
    expect(fellTo).toBeGreaterThan(run.generatorFromSoc);
    // The busiest is charged last, and until it has enough.
    const busiest: [number, boolean][] = [];
    runApart(apart, run, { at: 0, see: (_, now) => busiest.push([now.soc, now.isRunning]) });
    const off = busiest.findIndex(([, isOn], at) => !isOn && busiest[at - 1]?.[1] === true);
    expect(busiest[off - 1]?.[0]).toBeGreaterThanOrEqual(run.generatorToSoc);
    // By itself the third would have called it later and less often.
    expect(results[2]?.generatorStarts).toBeGreaterThan(runOutage(idle.plant, run).generatorStarts);
    expect(new Set(results.map(({ generatorMinutes }) => generatorMinutes)).size).toBe(1);
    // It idles once, and burns for what each of the four units is given: two on L1.
    const type = SAMPLE_TYPES.find(({ id }) => id === 'diesel-20k-3ph') as {
      fuelIdleLPerH: number;
      fuelLPerKwh: number;
    };
    const [a, b, c] = results.map(({ energy }) => energy.generator / 1000);
    const litres =
      (type.fuelIdleLPerH * (results[0]?.generatorMinutes ?? 0)) / 60 +
      type.fuelLPerKwh * (2 * (a ?? 0) + (b ?? 0) + (c ?? 0));
    expect(results[0]?.litres).toBeCloseTo(litres, 6);
  });

  it('end with the fuel, whoever burns it', () => {
    const { results } = played(
      (d) => {
        withSet(d);
        Object.assign(d.generators[0] ?? {}, { fuelL: 10 });
      },
      { minutes: 20_000 },
    );
    expect(results[0]?.litres).toBeGreaterThanOrEqual(10);
    expect(results[0]?.litres).toBeLessThan(10.2);
  });

  it('have burnt what a bank was given that stops later', () => {
    const L2 = threeLines().apart[1]?.unitIds[0];
    const edit = (d: Design): void => {
      withSet(d);
      Object.assign(d.generators[0] ?? {}, { fuelL: 30 });
    };
    const lose = { what: 'unit' as const, minute: 2300, unitId: L2 ?? '' };
    const { results } = played(edit, { minutes: 20_000, lose });
    expect(results[1]?.lastedMinutes).toBe(2300);
    expect(results[1]?.energy.generator).toBeGreaterThan(0);
    expect(results[0]?.litres).toBeLessThan(30.2);
  });

  it('lose a unit: one of two leaves all of its line to the other, the only one of a line leaves it dark', () => {
    const [onL1, onL2] = threeLines().apart.map(({ unitIds }) => unitIds[0] ?? '');
    const lose = (unitId = '') => ({ lose: { what: 'unit' as const, minute: 60, unitId } });
    const two = played(undefined, lose(onL1));
    const { fullWh, floorSoc, idleW, efficiency } = two.first.plant;
    const draw = (watts: number): number => watts / (efficiency[0] ?? 1) + idleW;
    // An hour at 600 W, then 1200 W.
    const hours = 1 + (fullWh * (1 - floorSoc) - draw(600)) / draw(1200);
    expect((two.results[0]?.lastedMinutes ?? 0) / 60).toBeCloseTo(hours, 1);
    expect((two.results[1]?.lastedMinutes ?? 0) / 60).toBeCloseTo((fullWh * (1 - floorSoc)) / draw(600), 1);
    const only = played(undefined, lose(onL2));
    expect(only.results.map(({ lastedMinutes }) => lastedMinutes > 60)).toEqual([true, false, true]);
    expect(only.results[1]?.lastedMinutes).toBe(60);
    const all = two.apart.map((one) => ({
      ...one,
      plant: { ...one.plant, lostUnit: 'set-stops' as const },
    }));
    expect(runApart(all, two.run).map(({ lastedMinutes }) => lastedMinutes)).toEqual([60, 60, 60]);
  });
});
