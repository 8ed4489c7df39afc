import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { autonomy } from '../figures/bank/autonomy.ts';
import { compile } from '../installation/compile.ts';
import { addLoad, bank1, baseDesign, item1, stack1 } from '../testkit/designs.ts';
import { next } from './chance.ts';
import { QUARTER_SPREAD } from '../figures/loads/rehearsedLoad.ts';
import type { Minute } from './minute.ts';
import { runOutage } from './outage.ts';
import type { Plant } from './plant.ts';
import { SEASONS } from './year.ts';
import { askProblem, nightsRun, outageRun, plantsOf } from './rehearse.ts';
import { analyse } from '../checks/analyse.ts';
import { motorStart, startersOf } from './motorStart.ts';
import { transferOf } from './transfer.ts';
import { anyPlant, anyRun } from '../testkit/anyPlant.ts';
import { generator, imbalance, plant, run, steady, sun } from '../testkit/plant.ts';

describe('an outage by hand', () => {
  it('constant load: 4000 Wh / (1000 / 0.9 + 50) = 3.445 h, to the minute and within it', () => {
    const result = runOutage(plant(), run());
    expect(result.lastedMinutes).toBeCloseTo((4000 / (1000 / 0.9 + 50)) * 60, 6);
    expect(result.endSoc).toBeCloseTo(0.1, 9);
    expect(result.energy.served).toBeCloseTo(1000 * (result.lastedMinutes / 60), 6);
  });

  it('a stage goes at its level and comes back 5 % above it', () => {
    const boards = [
      ...plant().boards,
      { partitionId: 'x', name: 'Stage', shedBelowSoc: 0.4, onlyWithGenerator: false, minuteW: steady(900) },
    ];
    // 1900 / 0.9 + 50 = 2161.1 W: 1000 Wh down to 40 % take 27.76 min, so the stage is on for 28 minutes.
    const result = runOutage(plant({ boards }), run({ minutes: 120 }));
    expect(result.boardMinutes[1]).toBe(28);
    expect(result.boardMinutes[0]).toBe(120);
    // Charged by the sun from 38 %: on again at 45 %.
    const seen: number[] = [];
    runOutage(plant({ boards, sunDcW: sun(4000) }), run({ startSoc: 0.38, minutes: 60 }), (_, now) => {
      if ((now.boards & 2) !== 0) seen.push(now.soc);
    });
    expect(seen[0]).toBeGreaterThan(0.45);
    expect(seen[0]).toBeLessThan(0.46);
  });

  it('twenty minutes of a morning: sun, then more sun than load, then a full bank', () => {
    // Sun of 600 W: need 1161.11, from the bank 561.11 W a minute = 9.352 Wh. From minute 10 on 2000 W: 838.89 W into it.
    const minuteSun = steady(600).map((watts, minute) => (minute < 10 ? watts : 2000));
    const sunDcW = Array.from({ length: SEASONS }, () => minuteSun);
    const held: number[] = [];
    runOutage(plant({ sunDcW }), run({ minutes: 20 }), (_, now) => held.push(now.soc * 10_000));
    const need = 1000 / 0.9 + 50;
    let byHand = 5000;
    for (let minute = 0; minute < 20; minute += 1) {
      byHand += ((minute < 10 ? 600 : 2000) - need) / 60;
      expect(held[minute]).toBeCloseTo(byHand, 6);
    }
    const full = runOutage(plant({ sunDcW: sun(2000) }), run({ startSoc: 1, minutes: 60 }));
    expect(full.energy.curtailed).toBeCloseTo(2000 - need, 6);
    expect(full.endSoc).toBeCloseTo(1, 12);
  });

  it('the generator is called at 20 %, there after two minutes, gone at 80 %', () => {
    const seen: Minute[] = [];
    const result = runOutage(plant({ generator }), run({ startSoc: 0.21, minutes: 400 }), (_, now) =>
      seen.push({ ...now }),
    );
    expect(result.generatorStarts).toBe(1);
    expect(result.lastedMinutes).toBe(400);
    const first = seen.findIndex(({ generatorW }) => generatorW > 0);
    // 100 Wh at 1161.1 W: 5.17 min, seen at the sixth minute; two minutes of warming up.
    expect(first).toBe(8);
    // 1000 W of load and 2000 W of charging, of which 1800 W arrive, less 50 W that idle.
    expect(seen[first]).toMatchObject({ generatorW: 3000 });
    expect(seen[first]?.batteryW).toBeCloseTo(-1750, 9);
    // A set that load and charging together may ask 1700 W of: 700 W of charging.
    const small = runOutage(
      plant({ generator: { ...generator, targetW: 1700, warmUpMin: 0 } }),
      run({ startSoc: 0.15, minutes: 60 }),
    );
    expect(small.energy.generator).toBeCloseTo(1700, 6);
    expect(result.litres).toBeCloseTo(
      (result.generatorMinutes / 60) * 0.6 + (result.energy.generator / 1000) * 0.3,
      9,
    );
  });

  it('a set by hand comes half an hour later, and an empty tank ends it', () => {
    const byHand = runOutage(
      plant({ generator: { ...generator, start: 'hand' } }),
      run({ startSoc: 0.15, minutes: 120 }),
    );
    expect(byHand.generatorMinutes).toBe(120 - 32);
    const dry = runOutage(
      plant({ generator: { ...generator, fuelL: 0.3 } }),
      run({ startSoc: 0.15, minutes: 600 }),
    );
    expect(dry.litres).toBeCloseTo(0.3, 1);
    expect(dry.lastedMinutes).toBeLessThan(600);
  });

  it('AC-coupled power: load first, the rest through the inverters, none while a generator runs', () => {
    const result = runOutage(plant({ sunAcW: sun(1500) }), run({ minutes: 60 }));
    // 500 W through at 0.9: 450 W in, 50 W idle.
    expect(result.energy.battery).toBeCloseTo(-400, 6);
    const held = runOutage(plant({ sunAcW: sun(1500), generator }), run({ startSoc: 0.15, minutes: 60 }));
    expect(held.energy.sunAc).toBeCloseTo((1500 * 2) / 60, 6);
  });

  it('more than the inverters give is dark, and so is a set whose only unit is lost', () => {
    const over = runOutage(plant({ ratedW: 900 }), run({ minutes: 10 }));
    expect(over).toMatchObject({ overloadMinutes: 10, lastedMinutes: 0 });
    const lost = runOutage(plant(), run({ minutes: 60, lose: { what: 'unit', minute: 20 } }));
    expect(lost.lastedMinutes).toBe(20);
    // One of two that go on: half of what idles, half of what they give.
    const pair = plant({ unitCount: 2, lostUnit: 'rest-continue', idleW: 100, ratedW: 1800, sharedBy: 2 });
    const rest = runOutage(pair, run({ lose: { what: 'unit', minute: 0 }, loadFactor: 0.8 }));
    expect(rest.lastedMinutes).toBeCloseTo((4000 / (800 / 0.9 + 50)) * 60, 6);
    expect(runOutage(pair, run({ lose: { what: 'unit', minute: 5 } })).lastedMinutes).toBe(5);
    // 1161 W out of a bank that gives 1100 W.
    expect(runOutage(plant({ mostDischargeW: 1100 }), run({ minutes: 10 })).overloadMinutes).toBe(10);
    const module = runOutage(plant(), run({ lose: { what: 'module', minute: 0 } }));
    expect(module.lastedMinutes).toBeCloseTo(((7500 * 0.4) / (1000 / 0.9 + 50)) * 60, 6);
  });

  it('an empty bank starts again from the sun', () => {
    // Dark at once; 3000 W of charging limit: 500 Wh to 15 % take 10 minutes.
    const result = runOutage(
      plant({ sunDcW: sun(5000) }),
      run({ startSoc: 0.1, minutes: 30, clearness: [1] }),
    );
    expect(result.boardMinutes[0]).toBe(30);
    const dawn = steady(0).map((_, minute) => (minute < 5 ? 0 : 5000));
    const later = runOutage(
      plant({ sunDcW: Array.from({ length: SEASONS }, () => dawn) }),
      run({ startSoc: 0.1, minutes: 30 }),
    );
    expect(later.boardMinutes[0]).toBe(15);
  });
});

describe('laws', () => {
  it('energy is conserved in every run, and the battery holds what it was given', () => {
    fc.assert(
      fc.property(anyPlant, anyRun, (one, how) => {
        const { energy, endSoc, lowestSoc } = runOutage(one, how);
        const moved = energy.sunDc + energy.sunAc + energy.generator + energy.served + 1;
        expect(Math.abs(imbalance(energy)) / moved).toBeLessThan(1e-9);
        const fullWh = how.lose?.what === 'module' ? one.fullWh * 0.75 : one.fullWh;
        expect(one.fullWh * how.startSoc - energy.battery).toBeCloseTo(endSoc * fullWh, 5);
        expect(lowestSoc).toBeGreaterThanOrEqual(-1e-9);
        expect(endSoc).toBeLessThanOrEqual(1 + 1e-9);
      }),
      { numRuns: 100 },
    );
  });
});

describe('what a run keeps count of', () => {
  it('all sun is used or held back: 3000 W on the AC side beside 1000 W of load and a full bank', () => {
    const { energy } = runOutage(plant({ sunAcW: sun(3000) }), run({ startSoc: 1, minutes: 60 }));
    expect(energy.sunAc + energy.curtailed).toBeCloseTo(3000, 6);
    expect(energy.curtailed).toBeGreaterThan(1900);
  });

  it('chance is drawn twice in each quarter of an hour, and again the same: 31 minutes are three of them', () => {
    const chance = { state: 5 };
    const draws = { state: 5 };
    const [first, second, third] = [1, 2, 3].map(() => 1 + QUARTER_SPREAD * (next(draws) + next(draws) - 1));
    const byHand = (1000 * (15 * (first ?? 0) + 15 * (second ?? 0) + (third ?? 0))) / 60;
    for (let time = 0; time < 2; time += 1)
      expect(runOutage(plant(), run({ minutes: 31, chance })).energy.served).toBeCloseTo(byHand, 6);
  });

  it('the sixth day is of the next five: sun that shines in those alone', () => {
    const sunDcW = Array.from({ length: SEASONS }, (_, season) => steady(season === 1 ? 100 : 0));
    const { energy } = runOutage(plant({ sunDcW }), run({ season: 0, minutes: 6 * 1440 }));
    expect(energy.sunDc + energy.curtailed).toBeCloseTo(2400, 6);
    const over = runOutage(plant({ sunDcW }), run({ season: SEASONS - 1, minutes: 6 * 1440 }));
    expect(over.energy.sunDc + over.energy.curtailed).toBe(0);
  });
});

describe('a design', () => {
  const of = (edit: (design: Design) => void = () => undefined) => {
    const design = baseDesign();
    edit(design);
    const installation = compile(design, SAMPLE_TYPES);
    const [first] = plantsOf(installation);
    if (first === undefined) throw new Error('The base makes an island.');
    return { installation, ...first };
  };
  const known = (one: ReturnType<typeof of>): Plant => {
    if (!one.plant.known) throw new Error(one.plant.missing.map(String).join());
    return one.plant.value;
  };

  it('calls its generator where its settings do, and draws no more than they let it', () => {
    const planned = known(of());
    // The bank stops at 10 %: called at 20 %, let go at 80 %, where nobody has set it.
    expect(planned.callLevels).toEqual({ fromSoc: 0.2, toSoc: 0.8 });
    // 110 A of the inverter at 51.2 V.
    expect(planned.mostDischargeW).toBeCloseTo(110 * 51.2, 6);
    const one = of((d) =>
      Object.assign(stack1(d), {
        dischargeCurrentA: 40,
        settings: { generatorFromSoc: 0.35, generatorToSoc: 0.6 },
      }),
    );
    expect(known(one).mostDischargeW).toBeCloseTo(40 * 51.2, 6);
    const { generatorFromSoc, generatorToSoc } = outageRun(known(one), one.installation, {});
    expect([generatorFromSoc, generatorToSoc]).toEqual([0.35, 0.6]);
  });

  it('a chosen start is the one that the limits judge', () => {
    const edit = (d: Design): void =>
      addLoad(d, 'c2', ['L1'], { runningW: 500, powerFactor: 0.5, startClass: 'deep-pump' });
    const { compiled } = of(edit);
    const starters = startersOf(compiled);
    expect(starters.known && starters.value.map(({ key }) => key)).toEqual(['c2/c2-i']);
    const start = motorStart(compiled, 'c2/c2-i');
    const [line] = start.known ? (start.value?.lines ?? []) : [];
    const design = baseDesign();
    edit(design);
    const judged = analyse(design, SAMPLE_TYPES).findings.find(
      ({ check, mode }) => check === 'surge.largest-start' && mode === 'island',
    );
    expect(judged?.value).toBeGreaterThan(1000);
    expect(Math.max(...(line?.steps.map(({ va }) => va) ?? []))).toBeCloseTo(judged?.value ?? NaN, 9);
    expect(line?.steps[0]?.fromS).toBe(0);
    const nobody = motorStart(compiled, 'c2/x');
    expect(nobody.known && nobody.value).toBeUndefined();
  });

  it('a start that is too much says what it does', () => {
    const { compiled } = of((d) =>
      addLoad(d, 'c2', ['L1'], { runningW: 9000, powerFactor: 0.5, startClass: 'deep-pump' }),
    );
    const start = motorStart(compiled, 'c2/c2-i');
    const said = start.known ? (start.value?.events.map(({ sentence }) => sentence) ?? []) : [];
    expect(said[0]).toContain('starts.');
    expect(said.join(' ')).toContain('the set trips');
  });

  it('lasts as long as its autonomy says, from the same hour', () => {
    const one = of((d) => {
      d.site.outageStartH = 18;
      Object.assign(item1(d), { runsFromH: 17, runsToH: 20, hoursPerDay: 3 });
      addLoad(d, 'c2', ['L1'], { runningW: 400, hoursPerDay: 24 });
    });
    const result = runOutage(known(one), outageRun(known(one), one.installation, { hours: 48 }));
    const promised = autonomy(one.compiled, 'reserve', 'average');
    const typed = promised?.known === true ? promised.value.byHour?.typed?.hours : undefined;
    expect(result.lastedMinutes / 60).toBeCloseTo(typed ?? 0, 3);
  });

  it('says what is left out, and what is missing', () => {
    const one = of((d) =>
      d.arrays.push({
        id: 'a',
        name: 'Roof',
        coupling: 'ac',
        ratedAcW: 3000,
        partitionId: 'b',
        tiltDeg: 30,
        directionDeg: 180,
      }),
    );
    expect(known(one).leftOut).toEqual(['The sun on Roof is left out. Not known: latitude of the site.']);
    expect(known(of((d) => Reflect.deleteProperty(stack1(d), 'chargeCurrentA'))).leftOut).toEqual([
      'The charge setting is not known: the bank is charged with as much as the inverters can.',
    ]);
    const shed = { kind: 'shed', stackId: 's', shedWhen: 'below-soc' } as const;
    const shedAway = of((d) =>
      d.partitions.push(
        { ...shed, id: 'x', name: 'Pool', shedStage: 1, shedBelowSoc: 0.05 },
        { ...shed, id: 'y', name: 'Sauna', shedStage: 2 },
      ),
    );
    expect(known(shedAway).leftOut).toEqual([
      'Pool drops below 5 %, and discharge ends at 10 %: it never drops.',
      'At which level Sauna drops is not known: it is carried to the end.',
    ]);
    const open = of((d) => {
      d.partitions.push({ id: 'x', name: 'Kitchen', kind: 'shed' });
      for (const [name, place] of Object.entries({
        Oven: {},
        Kiln: {},
        Pump: { partitionId: 'x' },
        Saw: {},
        Fan: {},
      }))
        d.circuits.push({ id: name, name, lines: ['L1'], items: [], ...place });
    });
    expect(known(open).leftOut).toEqual([
      'Circuits without a place are left out: Oven, Kiln, Saw and 1 more.',
      'What hangs on partitions that no set feeds is left out: Kitchen.',
    ]);
    expect(of((d) => Reflect.deleteProperty(bank1(d), 'cutoffSoc')).plant.known).toBe(false);
    expect(plantsOf(compile({ ...baseDesign(), stacks: [] }, SAMPLE_TYPES))).toEqual([]);
  });

  it('plays the transfer: what drops out, and when the overload curve is used up', () => {
    const { compiled } = of((d) => {
      item1(d).longestInterruptionMs = 1;
      for (let at = 2; at < 6; at += 1)
        addLoad(d, `m${at}`, ['L1'], { runningW: 1500, startClass: 'compressor', powerFactor: 0.8 });
    });
    const transfer = transferOf(compiled);
    if (!transfer.known) throw new Error('It is known.');
    expect(transfer.value.drops).toEqual([{ what: 'Heater i1 (Heat)', longestMs: 1 }]);
    expect(transfer.value.lines[0]?.tripsAtS).toBeGreaterThanOrEqual(transfer.value.gapMs / 1000);
    expect(transfer.value.events.at(-1)?.sentence).toMatch(/the set trips|stalls/);
    expect(transfer.value.missing).toEqual([]);
    const silent = transferOf(
      of((d) => void Reflect.deleteProperty(item1(d), 'longestInterruptionMs')).compiled,
    );
    expect(silent.known && [silent.value.drops, silent.value.missing]).toEqual([
      [],
      [['circuits', 'c1', 'items', 'i1', 'longestInterruptionMs']],
    ]);
    const calm = transferOf(of((d) => void (stack1(d).name = 'Calm')).compiled);
    expect(calm.known && calm.value.lines[0]?.tripsAtS).toBeUndefined();
  });

  it.each([
    [{ hours: 0 }, /cannot be played/],
    [{ hours: 9000 }, /cannot be played/],
    [{ nights: 1 }, /from 10 to/],
    [{ nights: 1e7 }, /from 10 to/],
    [{ startH: 25 }, /hour of the start/],
    [{ month: 13 }, /month/],
    [{ clearness: 2 }, /clear sky/],
    [{ hours: 72, nights: 10_000, startH: 3 }, undefined],
  ])('%j', (ask, problem) => {
    if (problem === undefined) expect(askProblem(ask)).toBeUndefined();
    else expect(askProblem(ask)).toMatch(problem);
  });

  it('asks for nights as the site has them', () => {
    const one = of();
    expect(nightsRun(known(one), one.installation, {})).toMatchObject({
      nights: 10_000,
      targetMinutes: 240,
      startSoc: 0.5,
    });
  });
});
