import { describe, expect, it } from 'vitest';
import type { Design } from '../design/schema.ts';
import { addLoad, bank1, stack1 } from '../testkit/designs.ts';
import { AWAKE, island, play, withFuelledSet, withInverter } from '../testkit/site.ts';
import { withStrings } from '../testkit/wired.ts';
import { modeOf } from './siteStep.ts';
import { siteValues } from './siteValues.ts';

/** The diesel set of 20 kVA at 0.8: 16 kW of engine, no loss at 100 m and 25 °C, droop 4 %. */
const withDiesel = (d: Design): void => {
  stack1(d).generatorChargeW = 1000;
  withFuelledSet(d, 'diesel-20k-3ph', { fuelL: 50 });
};
const call = (run: boolean) => ({ do: 'generator', generatorId: 'g', run }) as const;
const charge = (soc: number) => ({ do: 'charge', stackId: 's', soc }) as const;

describe('a generator of the site', () => {
  it('runs at 50 · (1 + 0.04 · (1 − P / 16 kW)): 52 Hz unloaded, 51 Hz at 8 kW', () => {
    const { act, run, set } = island(withDiesel);
    act(charge(1), { do: 'circuits', on: false }, call(true));
    run(120);
    expect([set.phase, set.source]).toEqual(['joined', 'generator']);
    run(1);
    expect(set.frequencyHz).toBeCloseTo(52, 9);
    act({ do: 'test-load', line: 0, watts: 8000 });
    run(0.3);
    expect(set.frequencyHz).toBeCloseTo(51, 9);
  });

  it.each([
    [17_500, 'running'],
    [17_700, 'off'],
  ] as const)('asked for %d W of 16 kW is %s: it carries 1.1 times and stalls above', (watts, phase) => {
    const { act, run, state } = island(withDiesel);
    act(charge(1), { do: 'circuits', on: false }, call(true));
    run(120);
    act({ do: 'test-load', line: 0, watts });
    run(0.3);
    expect(state.generators[0]?.phase).toBe(phase);
    expect(state.events.some(({ sentence }) => sentence.includes('stalls'))).toBe(phase === 'off');
  });

  it('is called by an empty bank over its contact and let go at 80 %, as it is rehearsed', () => {
    const { act, run, state, set, plan } = island(withDiesel);
    act(charge(0.201));
    run(1);
    expect(state.generators[0]?.phase).toBe('off');
    act(charge(0.2));
    run(0.2);
    expect(state.generators[0]?.phase).toBe('warming');
    run(120);
    expect(set.source).toBe('generator');
    act(charge(0.81));
    run(0.3);
    expect([state.generators[0]?.phase, set.phase]).toEqual(['off', 'island']);
    const contact = plan.network.links.find(({ kind }) => kind === 'dry-contact');
    act({ do: 'plant', fault: { kind: 'comms-lead-pulled', at: contact?.id ?? '' } }, charge(0.15));
    run(5);
    expect(state.generators[0]?.phase).toBe('off');
  });

  it('is not let go by the charge where a hand called it, and stops when it is dry', () => {
    const { act, run, state } = island((d) => {
      withDiesel(d);
      Object.assign(d.generators[0] ?? {}, { fuelL: 0.05 });
    });
    act(charge(0.9), call(true));
    run(60);
    expect(state.generators[0]?.phase).toBe('running');
    // 0.9 L an hour without load, more with it: 0.05 L last 200 s at most.
    run(200);
    expect(state.generators[0]?.phase).toBe('off');
  });

  it('by a transfer switch charges with what is set for the grid port', () => {
    const { act, run, set, plan, state } = play((d) => {
      stack1(d).gridChargeW = 800;
      stack1(d).generatorChargeW = 3000;
      withFuelledSet(d, 'petrol-4k-1ph', { connection: 'transfer-switch', fuelL: 9 });
    });
    act(...AWAKE, { do: 'grid', present: false });
    act({ do: 'isolator', closed: true }, call(true), { do: 'position', to: 'generator' });
    run(200);
    expect([set.phase, set.source, modeOf(plan, state)]).toEqual(['joined', 'generator', 'transfer-switch']);
    expect(set.chargeW).toBe(800);
  });
});

describe('sun on the site', () => {
  it('on strings goes first: 9 · 430 W · 0.85 less 2300 / 0.94 + 50', () => {
    const { act, run, set } = island((d) => withStrings(d, 9));
    act({ do: 'sun', share: 1 });
    run(0.2);
    const spareW = 9 * 430 * 0.85 - (2300 / 0.94 + 50);
    expect(set.batteryA * set.batteryV).toBeCloseTo(-spareW, 2);
    act({ do: 'plant', fault: { kind: 'polarity-swapped', at: 'a' } });
    run(0.2);
    expect(set.batteryA * set.batteryV).toBeCloseTo(2300 / 0.94 + 50, 2);
  });

  it('on the AC side charges with what the load leaves, and is held back by frequency once the bank is full', () => {
    const { act, run, set } = island((d) => {
      d.site.latitudeDeg = 50;
      d.arrays.push({
        id: 'a',
        name: 'Roof',
        coupling: 'ac',
        ratedAcW: 3000,
        partitionId: 'b',
        withGenerator: 'disconnected',
      });
    });
    act({ do: 'sun', share: 1 });
    run(0.2);
    // 2550 W of sun on 2300 W of load: 250 W go in at 0.94, less 50 W that idle.
    expect(set.batteryA * set.batteryV).toBeCloseTo(50 - 250 * 0.94, 2);
    expect(set.frequencyHz).toBe(50);
    act(charge(1));
    run(0.2);
    expect(set.frequencyHz).toBe(51);
    expect(set.batteryA * set.batteryV).toBeGreaterThanOrEqual(-1e-6);
  });
});

describe('boards of the site', () => {
  const withStage =
    (shedWhen: 'below-soc' | 'at-transfer') =>
    (d: Design): void => {
      d.partitions.push({
        id: 'sh',
        name: 'Stage',
        kind: 'shed',
        stackId: 's',
        shedStage: 1,
        shedWhen,
        ...(shedWhen === 'below-soc' ? { shedBelowSoc: 0.5 } : {}),
      });
      addLoad(d, 'c2', ['L1'], { runningW: 500 });
      Object.assign(d.circuits[1] ?? {}, { partitionId: 'sh' });
    };

  it('of a stage go below its level and come back 5 % above it', () => {
    const { act, run, set } = island(withStage('below-soc'));
    const loadAt = (soc: number): number => {
      act(charge(soc));
      run(0.2);
      return set.loadW;
    };
    expect([loadAt(0.51), loadAt(0.49), loadAt(0.54), loadAt(0.56)]).toEqual([2800, 2300, 2300, 2800]);
  });

  it('that are dropped at the transfer are dark in island', () => {
    const { run, set } = island(withStage('at-transfer'));
    run(0.2);
    expect(set.loadW).toBe(2300);
  });

  it('hang on the grid in maintenance bypass, with everything else off', () => {
    const { act, run, state, plan, set } = play();
    act({ do: 'position', to: 'bypass' }, { do: 'circuits', on: true });
    run(1);
    expect(modeOf(plan, state)).toBe('maintenance-bypass');
    expect([set.phase, state.circuits[0]?.watts, state.lines[0]?.gridW]).toEqual(['off', 2300, 2300]);
    expect(state.lines[0]?.voltageV).toBeCloseTo(230, 0);
    act({ do: 'grid', present: false });
    run(0.2);
    expect([state.circuits[0]?.watts, state.lines[0]?.voltageV]).toEqual([0, 0]);
  });

  it('close with the delay of a circuit after they were dark', () => {
    const { act, run, set } = play((d) => Object.assign(d.circuits[0] ?? {}, { startDelayS: 5 }));
    act(...AWAKE, { do: 'grid', present: false }, { do: 'circuits', on: true });
    run(14.5);
    expect([set.phase, set.loadW]).toEqual(['island', 0]);
    run(2);
    expect(set.loadW).toBe(2300);
  });

  it.each([
    [10, 500],
    [200, 3000],
  ] as const)(
    'after a break of %d ms a pump of 500 W draws %d VA: contactors let go above 50 ms',
    (transferMs, va) => {
      const { act, run, state } = play((d) => {
        withInverter(d, { transferMs });
        d.circuits = [];
        addLoad(d, 'p', ['L1'], {
          runningW: 500,
          powerFactor: 1,
          startMultiple: 6,
          startDurationS: 0.8,
          startPowerFactor: 0.5,
        });
      });
      act(...AWAKE, { do: 'isolator', closed: true }, { do: 'circuits', on: true });
      run(90);
      act({ do: 'grid', present: false });
      run(0.1);
      expect(Math.hypot(state.lines[0]?.loadW ?? 0, state.lines[0]?.loadVar ?? 0)).toBeCloseTo(va, 6);
    },
  );
});

describe('the bank of the site', () => {
  it('loses a module that gives more than it may for longer than its peak, and the set with the last one', () => {
    const { act, run, set, state } = island((d) => {
      bank1(d).modules = [{ id: 'm1' }];
    });
    act({ do: 'test-load', line: 0, watts: 700 });
    // 3000 / 0.94 + 50 W at some 52 V: 62 A of 50 A, allowed for 15 s.
    run(14.8);
    expect(set.modules[0]?.isJoined).toBe(true);
    run(0.5);
    expect(set.modules[0]?.isJoined).toBe(false);
    expect(state.events.some(({ sentence }) => sentence.includes('took itself off the bank'))).toBe(true);
    run(0.2);
    expect(['tripped', 'empty']).toContain(set.phase);
  });

  it('that each unit has for itself gives what its own unit takes', () => {
    const { run, set, plan } = island((d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units = [
        { id: 'u1', barPlace: 1 },
        { id: 'u2', barPlace: 2 },
      ];
      bank1(d).serves = 'one-unit';
    });
    run(0.1);
    expect(set.batteryA * set.batteryV).toBeCloseTo(1150 / 0.94 + 50, 2);
    expect(plan.leftOut.join()).toContain('has a bank of its own');
  });
});

describe('what nobody has stated of a site', () => {
  const told = (edit: (design: Design) => void): string => play(edit).plan.leftOut.join(' ');
  const without =
    (...keys: string[]) =>
    (d: Design): void =>
      keys.forEach((key) => Reflect.deleteProperty(stack1(d), key));
  const ownType =
    (key: string) =>
    (d: Design): void => {
      withInverter(d, {});
      Reflect.deleteProperty(d.types[0] ?? {}, key);
    };
  it.each<[string, (design: Design) => void, string]>([
    ['a charge current', without('chargeCurrentA'), 'The charge current of Stack is not set'],
    [
      'charging from the grid',
      without('gridChargeW'),
      'charges with from the grid is not known: nothing is played',
    ],
    ['the delay of the type', ownType('reconnectDelayS'), '60 s are played'],
    ['how far the output gives way', ownType('outputMilliohm'), 'its voltage stands still'],
    [
      'firmware',
      (d) => Reflect.deleteProperty(stack1(d).units[0] ?? {}, 'firmware'),
      'Firmware is not recorded of unit 1',
    ],
    [
      'the demand of a load',
      (d) => Reflect.deleteProperty(d.circuits[0]?.items[0] ?? {}, 'demandFactor'),
      'What is not stated of some loads is left out',
    ],
    [
      'fuel and droop',
      (d) => {
        withDiesel(d);
        Reflect.deleteProperty(d.generators[0] ?? {}, 'fuelL');
      },
      'it never runs dry here',
    ],
    [
      'charging from a generator',
      (d) => {
        withDiesel(d);
        without('generatorChargeW')(d);
      },
      'charged with from Set is not known',
    ],
    [
      'the power of strings',
      (d) => {
        withStrings(d, 9);
        Reflect.deleteProperty(d.arrays[0] ?? {}, 'modulesPerString');
      },
      'The sun on South roof is left out',
    ],
    [
      'where a sensor looks',
      (d) => void d.instruments.push({ id: 'ct', kind: 'sensor' }),
      'it reads nothing',
    ],
  ])('is said, never silently played: %s', (_, edit, words) => {
    expect(told(edit)).toContain(words);
  });

  it('refuses what decides when boards go dark', () => {
    expect(() => play((d) => Reflect.deleteProperty(bank1(d), 'cutoffSoc'))).toThrow(
      'cannot be simulated yet',
    );
  });

  it('is no figure in a register: a sensor of which nobody knows where it looks, firmware that nobody has read', () => {
    const { plan, state } = play((d) => {
      d.instruments.push({ id: 'ct', kind: 'sensor' });
      Reflect.deleteProperty(stack1(d).units[0] ?? {}, 'firmware');
    });
    const values = siteValues(plan, state);
    expect([values['instrument.1.powerW'], values['unit.1.firmware']]).toEqual([null, null]);
  });

  it('is no mismatch: firmware of one unit not recorded, an address of one unit not stated', () => {
    const { run, set } = island((d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      // The second would be given 2 by its place, which the first has.
      stack1(d).units = [
        { id: 'u1', firmware: '2.1', busAddress: 2, barPlace: 1 },
        { id: 'u2', barPlace: 2 },
        { id: 'u3', firmware: '2.1', barPlace: 3 },
      ];
    });
    run(1);
    expect(set.phase).toBe('island');
    expect(set.units.map(({ address }) => address)).toEqual([2, 1, 3]);
  });
});

it('the base states everything but how far the output of its type gives way', () => {
  expect(play().plan.leftOut).toEqual([
    'How far the output of Stack gives way is not stated by its type: its voltage stands still below the overload.',
  ]);
});

describe('settings that are made on site', () => {
  it('charging from the grid follows what is set, on each unit', () => {
    const site = play();
    site.act(...AWAKE, { do: 'isolator', closed: true }, { do: 'charge', stackId: 's', soc: 0.5 });
    site.run(100);
    expect(site.set.phase).toBe('joined');
    // One unit of the base, planned with 2000 W.
    expect(site.set.chargeW).toBeCloseTo(2000, 0);
    site.act({ do: 'setting', stackId: 's', setting: 'grid-charge', value: 750 });
    site.run(1);
    expect(site.set.chargeW).toBeCloseTo(750, 0);
  });

  it('the island ends at the charge that is set', () => {
    const site = island();
    site.act({ do: 'charge', stackId: 's', soc: 0.4 });
    site.run(1);
    expect(site.set.phase).toBe('island');
    site.act({ do: 'setting', stackId: 's', setting: 'cutoff', value: 0.45 });
    site.run(1);
    expect(site.set.phase).toBe('empty');
  });
});
