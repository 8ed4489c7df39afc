import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { addLoad, bank1, baseDesign, forget, stack1, threePhase } from '../testkit/designs.ts';
import { AWAKE, island, play, withFuelledSet, withInverter } from '../testkit/site.ts';
import { closedLoop, threeOnABus } from '../testkit/wired.ts';
import { messagesOf } from './siteMessages.ts';
import { possibleFaults } from './siteFaults.ts';
import { sitePlan } from './sitePlan.ts';
import { putRight } from './siteState.ts';
import { modeOf } from './siteStep.ts';

describe('a site in time', () => {
  it('comes up, joins the grid after its delay, makes an island and goes back', () => {
    const { act, run, set, state, plan } = play();
    run(1);
    expect([set.phase, modeOf(plan, state)]).toEqual(['off', 'island']);
    act(...AWAKE, { do: 'isolator', closed: true });
    run(10.2);
    expect(set.phase).toBe('waiting');
    run(59.8);
    expect(set.phase).toBe('waiting');
    run(0.4);
    expect([set.phase, set.source, modeOf(plan, state)]).toEqual(['joined', 'grid', 'on-grid']);
    // 2 kW at the grid port; 0.94 of that arrives, and 50 W idle: the bank takes 1,830 W.
    expect(set.chargeW).toBe(2000);
    expect(set.batteryA * set.batteryV).toBeCloseTo(50 - 2000 * 0.94, 6);
    act({ do: 'grid', present: false });
    run(0.1);
    expect(set.phase).toBe('island');
    // The type says 10 ms: the simulated break is within it.
    expect(set.lastTransferMs).toBeGreaterThan(8);
    expect(set.lastTransferMs).toBeLessThanOrEqual(10);
    act({ do: 'grid', present: true });
    run(59.9);
    expect(set.phase).toBe('island');
    run(0.2);
    expect(set.phase).toBe('joined');
    expect(set.lastReturnS).toBeCloseTo(60, 6);
  });

  it('carries a heater: U = 230 − 0.02 · 2300 / 230, P_dc = 2300 / 0.94 + 50, ΔAh = I · t', () => {
    const { run, set, state } = island((d) => withInverter(d, { outputMilliohm: 20 }));
    run(0.1);
    const [line] = state.lines;
    expect(line?.voltageV).toBeCloseTo(229.8, 9);
    expect(line?.loadA).toBeCloseTo(2300 / 229.8, 9);
    expect(set.batteryA * set.batteryV).toBeCloseTo(2496.81, 2);
    const before = set.modules.map(({ soc }) => soc);
    const firstA = set.batteryA;
    run(360);
    const takenAh = set.modules.reduce((sum, { soc }, at) => sum + ((before[at] ?? 0) - soc) * 100, 0);
    // The current rises a little while the voltage falls.
    expect(takenAh / 0.1).toBeGreaterThan(firstA);
    expect(takenAh / 0.1).toBeLessThan(set.batteryA);
  });

  it('trips when its overload curve is used up: 1.38 times for 60 · (10 / 60)^(ln(1.38/1.1) / ln(1.5/1.1)) = 16.2 s', () => {
    const { run, set } = island((d) => {
      addLoad(d, 'c2', ['L1']);
      addLoad(d, 'c3', ['L1']);
    });
    run(15.9);
    expect(set.phase).toBe('island');
    run(0.5);
    expect([set.phase, set.reason]).toEqual(['tripped', 'it was overloaded']);
    expect(set.units.some(({ isOn }) => isOn)).toBe(false);
  });

  it('starts what starts: a pump of 500 W at 6 times, 0.8 s', () => {
    const { run, state } = island((d) => {
      d.circuits = [];
      addLoad(d, 'p', ['L1'], {
        runningW: 500,
        powerFactor: 1,
        startMultiple: 6,
        startDurationS: 0.8,
        startPowerFactor: 0.5,
      });
    });
    run(0.1);
    expect(Math.hypot(state.lines[0]?.loadW ?? 0, state.lines[0]?.loadVar ?? 0)).toBeCloseTo(3000, 6);
    expect(state.lines[0]?.loadW).toBeCloseTo(1500, 6);
    run(0.9);
    expect(state.lines[0]?.loadW).toBeCloseTo(500, 6);
  });

  it('goes dark at the floor of its bank and comes back with charge', () => {
    const { act, run, set } = island();
    act({ do: 'charge', stackId: 's', soc: 0.1001 });
    run(30);
    expect([set.phase, set.loadW]).toEqual(['empty', 0]);
    act({ do: 'charge', stackId: 's', soc: 0.16 });
    run(0.2);
    expect(set.phase).toBe('island');
  });

  it('loses a unit: the rest carries on, or the set stops, as its type says', () => {
    const three = (d: Design): void => {
      threePhase(d, [2, 2, 2]);
      d.circuits.forEach((circuit) => (circuit.lines = ['L1']));
    };
    const rest = island(three);
    rest.run(0.1);
    expect(rest.set.units.map(({ watts }) => watts)).toEqual([1150, 1150, 0, 0, 0, 0]);
    rest.act({ do: 'plant', fault: { kind: 'unit-dropped', at: 's/L1-1' } });
    rest.run(0.1);
    expect(rest.set.units.map(({ watts }) => watts)).toEqual([0, 2300, 0, 0, 0, 0]);
    const stops = island((d) => {
      three(d);
      withInverter(d, { lostUnit: 'set-stops' });
    });
    stops.act({ do: 'plant', fault: { kind: 'unit-dropped', at: 's/L1-1' } });
    stops.run(0.1);
    expect(stops.set.phase).toBe('dark');
  });

  it('shares by resistance: an aged module of 2.5 times its own gives (R + R_lead) / (2.5 R + R_lead) of the others', () => {
    const { act, run, set, plan } = island((d) => {
      addLoad(d, 'c2', ['L1'], { runningW: 1000 });
      bank1(d).barSegment = { lengthM: 0.0001, areaMm2: 1000 };
    });
    const type = SAMPLE_TYPES.find(({ id }) => id === 'lfp-51v-100ah');
    const innerOhm = type?.kind === 'battery' ? (type.internalMilliohm ?? 0) / 1000 : 0;
    const circuitOhm = plan.sets[0]?.circuit?.modules[0]?.ohm ?? 0;
    act({ do: 'plant', fault: { kind: 'module-aged', at: 's/m2' } });
    run(0.1);
    const [one, aged] = set.modules;
    expect((aged?.currentA ?? 0) / (one?.currentA ?? 1)).toBeCloseTo(
      circuitOhm / (circuitOhm + 1.5 * innerOhm),
      3,
    );
    // A weak joint of 4 mΩ beside it: R / (R + 0.004).
    act(
      { do: 'mend', fault: { kind: 'module-aged', at: 's/m2' } },
      { do: 'plant', fault: { kind: 'terminal-weak', at: 's/m3' } },
    );
    run(0.1);
    expect((set.modules[2]?.currentA ?? 0) / (set.modules[0]?.currentA ?? 1)).toBeCloseTo(
      circuitOhm / (circuitOhm + 0.004),
      2,
    );
  });

  it('hears no further than its cables reach', () => {
    const { act, run, set, plan, state } = island(closedLoop);
    run(0.1);
    const told = (): readonly string[] => messagesOf(plan, state, plan.sets[0] ?? expect.fail(), set);
    expect(told()).toEqual(['no-source']);
    const links = plan.network.links.filter(({ kind }) => kind === 'battery-bus');
    act({ do: 'plant', fault: { kind: 'comms-lead-pulled', at: links.at(-1)?.id ?? '' } });
    expect(told()).toContain('modules-missing');
    act({ do: 'plant', fault: { kind: 'comms-lead-pulled', at: links[0]?.id ?? '' } });
    expect(told()).toContain('battery-comms-lost');
  });

  it.each([
    ['address-doubled', 's/u2', 'two units have one address'],
    ['firmware-missed', 's/u3', 'the firmware of its units differs'],
    ['setting-forgotten', 's/count', 'it is set for 1 of 3 units'],
  ] as const)('%s stops a set of several units until it is mended', (kind, at, reason) => {
    const { act, run, set } = island(threeOnABus);
    act({ do: 'plant', fault: { kind, at } });
    run(0.1);
    expect([set.phase, set.reason]).toEqual(['tripped', reason]);
    act({ do: 'mend', fault: { kind, at } });
    run(11);
    expect(set.phase).toBe('island');
  });

  it('makes no island with the backup output left off, and one once it is set', () => {
    const { act, run, set, state } = island();
    act({ do: 'plant', fault: { kind: 'setting-forgotten', at: 's/backup' } });
    run(0.1);
    expect(set.phase).toBe('dark');
    act({ do: 'setting', stackId: 's', setting: 'backup', value: 1 });
    run(0.2);
    expect([set.phase, state.faults]).toEqual(['island', []]);
  });

  it('charges from a generator at its port within the engine, and burns for it; the grid meter takes load and charge', () => {
    const { act, run, set, state } = play((d) => {
      stack1(d).generatorChargeW = 3000;
      stack1(d).chargeCurrentA = 100;
      withFuelledSet(d, 'diesel-20k-3ph', { fuelL: 50 });
    });
    act(...AWAKE, { do: 'circuits', on: true }, { do: 'grid', present: false });
    act({ do: 'generator', generatorId: 'g', run: true });
    run(200);
    const [generator] = state.generators;
    expect([set.phase, set.source, generator?.phase]).toEqual(['joined', 'generator', 'running']);
    expect(generator?.watts).toBe(2300 + 3000);
    const before = generator?.litres ?? 0;
    const type = SAMPLE_TYPES.find(({ id }) => id === 'diesel-20k-3ph');
    const rate = type?.kind === 'generator' ? (type.fuelIdleLPerH ?? 0) + (type.fuelLPerKwh ?? 0) * 5.3 : 0;
    run(360);
    expect((generator?.litres ?? 0) - before).toBeCloseTo(rate / 10, 6);
    act(
      { do: 'generator', generatorId: 'g', run: false },
      { do: 'isolator', closed: true },
      { do: 'grid', present: true },
    );
    run(70);
    expect([set.source, state.lines[0]?.gridW]).toEqual(['grid', 2300 + 2000]);
    // With a setting of 20 A no more than that arrives, less what idles.
    act({ do: 'setting', stackId: 's', setting: 'charge', value: 20 });
    run(0.2);
    expect(set.batteryA + 20).toBeCloseTo(50 / set.batteryV, 2);
  });

  it('gives each set its own generator, and leaves one whose generator stands in island', () => {
    const { act, run, state } = play((d) => {
      Object.assign(stack1(d), { generatorChargeW: 1000, chargeCurrentA: 100 });
      d.stacks.push({ ...stack1(d), id: 't', name: 'Second' });
      d.partitions.push({ id: 'b2', name: 'Second board', kind: 'backup', stackId: 't' });
      addLoad(d, 'c2', ['L1'], { runningW: 700 });
      Object.assign(d.circuits[1] ?? {}, { partitionId: 'b2' });
      withFuelledSet(d, 'diesel-20k-3ph', { fuelL: 50 });
      withFuelledSet(d, 'diesel-20k-3ph', { fuelL: 50, id: 'h', name: 'Other', stackId: 't' });
    });
    act(...AWAKE, { do: 'battery', stackId: 't', closed: true }, { do: 'circuits', on: true });
    act({ do: 'grid', present: false }, { do: 'generator', generatorId: 'h', run: true });
    run(200);
    expect(state.sets.map(({ phase }) => phase)).toEqual(['island', 'joined']);
    expect(state.generators.map(({ watts }) => watts)).toEqual([0, 700 + 1000]);
    act({ do: 'generator', generatorId: 'g', run: true });
    run(200);
    expect(state.sets.map(({ phase }) => phase)).toEqual(['joined', 'joined']);
    expect(state.generators.map(({ watts }) => watts)).toEqual([2300 + 1000, 700 + 1000]);
  });

  it('puts right what the design itself has wrong', () => {
    const { plan, state } = play((d) => {
      threeOnABus(d);
      for (const [at, unit] of stack1(d).units.entries())
        Object.assign(unit, { firmware: at === 1 ? '1.9' : '1.10', busAddress: 4 });
    });
    putRight(plan, state);
    expect(state.sets[0]?.units.map(({ firmware, address }) => [firmware, address])).toEqual([
      ['1.10', 1],
      ['1.10', 2],
      ['1.10', 3],
    ]);
  });

  it('is the same site to the last bit from the same seed and commands', () => {
    const story = (): unknown => {
      const { run, state, act } = island();
      run(30);
      act({ do: 'grid', present: true }, { do: 'isolator', closed: true });
      run(90);
      return JSON.parse(JSON.stringify({ ...state, live: [...state.live] })) as unknown;
    };
    expect(story()).toEqual(story());
  });

  it('says what a site cannot be played without, and lists no fault that it cannot have', () => {
    const design = baseDesign();
    forget(design.site, 'lineVoltageV');
    expect(sitePlan(design, SAMPLE_TYPES)).toMatchObject({
      ok: false,
      sentence: expect.stringContaining('voltage') as string,
    });
    const kinds = new Set(possibleFaults(play().plan).map(({ kind }) => kind));
    expect(kinds.has('address-doubled')).toBe(false);
    expect(kinds.has('sensor-turned')).toBe(false);
    expect(kinds.has('module-aged')).toBe(true);
  });
});
