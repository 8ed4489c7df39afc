import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { addLoad, baseDesign, bank1, forget, stack1, threePhase } from '../testkit/designs.ts';
import { procedureFor } from './generate.ts';
import { judgeReading, judgeStep, type Verdict } from './judge.ts';
import { procedureSchema, type ProcedureStep, type ReadingSpec } from './schema.ts';

const stepsOf = (edit: (d: Design) => void = () => undefined): readonly ProcedureStep[] => {
  const design = baseDesign();
  edit(design);
  return procedureFor(design, SAMPLE_TYPES).steps;
};
const step = (steps: readonly ProcedureStep[], id: string): ProcedureStep => {
  const found = steps.find((one) => one.id === id);
  if (found === undefined) throw new Error(`No step ${id} among ${steps.map((one) => one.id).join(', ')}`);
  return found;
};
const reading = (from: ProcedureStep, id: string): ReadingSpec | undefined =>
  from.readings.find((one) => one.id === id);

describe('the islanding test of a design', () => {
  it('comes in the order of the work, and is of its own schema', () => {
    const steps = stepsOf((d) => addLoad(d, 'c2', ['L1'], { startClass: 'deep-pump', runningW: 300 }));
    expect(procedureSchema.parse({ format: 1, steps })).toEqual({ format: 1, steps });
    expect(steps.map((one) => one.id)).toEqual([
      'gate-limits',
      'gate-isolation',
      'gate-dead-tests',
      'modules-s',
      'gate-people',
      'battery-on-s',
      'inverter-on-s',
      'firmware-s',
      'settings-s',
      'grid-on-s',
      'live-on-grid',
      'island-s',
      'bonds',
      'load-s-L1-25',
      'load-s-L1-50',
      'load-s-L1-75',
      'load-s-L1-100',
      'start-s-L1',
      'return-s',
      'black-start-s',
      'endurance-s',
    ]);
    expect(steps.every((one) => one.section !== 'gates' || one.cautions.length > 0)).toBe(true);
  });

  it('measures each PV string first: 10 · 38.8 V from 0.9 of 65 °C cells (347.6 · 0.9) to −20 °C (433.4), and stops at 500', () => {
    const strings = step(
      stepsOf((d) => {
        d.site.lowestC = -20;
        d.site.highestC = 35;
        d.arrays.push({
          id: 'a',
          name: 'Roof',
          coupling: 'dc',
          moduleTypeId: 'pv-430w',
          modulesPerString: 10,
          places: [{ id: 'p', stackId: 's', unitId: 'u1', input: 1, strings: 1 }],
        });
      }),
      'gate-strings',
    );
    const voltage = reading(strings, 'voc-a-p');
    expect(voltage?.expected?.low).toBeCloseTo(0.9 * 388 * (1 - 0.0026 * 40), 6);
    expect(voltage?.expected?.high).toBeCloseTo(433.396, 3);
    expect(voltage?.abort).toEqual({ high: 500 });
  });

  it('holds modules to 0.1067 V of each other on 51.2 V before they are joined, and names the one that is apart', () => {
    const joined = step(
      stepsOf((d) => bank1(d).modules.forEach((module, at) => (module.stateOfCharge = at === 3 ? 1 : 0.5))),
      'modules-s',
    );
    // Half charged: 52.4 + (52.7 − 52.4) / 2 = 52.55 V.
    expect(reading(joined, 'module-voltage-s-m1')?.expected?.high).toBeCloseTo(52.55 + (0.1 * 51.2) / 48, 6);
    expect(joined.instructions.join(' ')).toMatch(/Module 4 stands 1\.85 V above the others .* discharge it/);
    const bare = step(stepsOf(), 'modules-s');
    expect(reading(bare, 'module-voltage-s-m1')?.missing).toEqual([
      'state of charge of the modules of Stack',
    ]);
  });

  it('expects 230 V ± 6 %, 50 ± 0.5 Hz, the transfer time of the type, and stops at ± 10 %', () => {
    const island = step(stepsOf(), 'island-s');
    expect(reading(island, 'voltage-L1')).toMatchObject({
      expected: { low: 216.2, high: 243.8 },
      abort: { low: 207 },
    });
    expect(reading(island, 'voltage-L1')?.abort?.high).toBeCloseTo(253, 9);
    expect(reading(island, 'frequency')?.expected).toEqual({ low: 49.5, high: 50.5 });
    expect(reading(island, 'transfer')?.expected).toEqual({ low: 0, high: 10 });
    expect(reading(island, 'neutral-earth')?.expected).toEqual({ low: 0, high: 1 });
  });

  it.each([
    // Petrol: regulation 8 %, droop 6 %. 230 · (1 ± 0.08); 50 Hz full, 50 · 1.06 = 53 Hz with nothing on it, and the band of the meter.
    ['petrol-4k-1ph', { low: 211.6, high: 248.4 }, 53.5],
    // Diesel: regulation 2.5 % stays inside the band of the test; droop 4 %.
    ['diesel-20k-3ph', { low: 216.2, high: 243.8 }, 52.5],
  ])('a generator runs at what its type holds: %s', (typeId, volts, hertz) => {
    const all = stepsOf((d) =>
      d.generators.push({ id: 'g', name: 'Set', typeId, connection: 'generator-port', stackId: 's' }),
    );
    const generator = step(all, 'generator-g');
    expect(reading(generator, 'voltage-L1')?.expected?.low).toBeCloseTo(volts.low, 9);
    expect(reading(generator, 'voltage-L1')?.expected?.high).toBeCloseTo(volts.high, 9);
    expect(reading(generator, 'frequency')?.expected).toEqual({ low: 49.5, high: hertz });
  });

  it('proves neutral and earth dead, and measures the local electrode where there is one', () => {
    const ids = (edit: (d: Design) => void) =>
      step(stepsOf(edit), 'gate-dead-tests').readings.map(({ id, nominal }) => [id, nominal]);
    expect(ids(() => undefined)).toContainEqual(['neutral-earth-dead', undefined]);
    expect(ids(() => undefined).some(([id]) => id === 'electrode')).toBe(false);
    expect(
      ids((d) => void Object.assign(d.site, { localElectrode: 'yes', electrodeOhm: 18 })),
    ).toContainEqual(['electrode', 18]);
  });

  it('charges with what is set: the smaller of 50 A and 2000 · 0.94 / 51.2 = 36.7 A', () => {
    const live = step(stepsOf(), 'live-on-grid');
    expect(reading(live, 'charge-current-s')?.nominal).toBeCloseTo(36.72, 2);
    const byCurrent = step(
      stepsOf((d) => void (stack1(d).chargeCurrentA = 30)),
      'live-on-grid',
    );
    expect(reading(byCurrent, 'charge-current-s')?.nominal).toBe(30);
    const two = step(
      stepsOf((d) => {
        stack1(d).arrangement = 'parallel-single-phase';
        stack1(d).units = [{ id: 'u1' }, { id: 'u2' }];
      }),
      'live-on-grid',
    );
    expect(reading(two, 'charge-current-s')?.nominal).toBeCloseTo(73.44, 2);
    // Sharing of the four modules as the limits have it: 10 % of the mean at most.
    expect(reading(live, 'module-share-s')?.expected).toEqual({ low: 0, high: 10 });
    expect(reading(live, 'module-share-s')?.nominal).toBeGreaterThan(0);
    const alone = step(
      stepsOf((d) => void (bank1(d).modules = [{ id: 'm1' }])),
      'live-on-grid',
    );
    expect(reading(alone, 'module-share-s')).toBeUndefined();
    const open = step(
      stepsOf((d) => Reflect.deleteProperty(stack1(d), 'gridChargeW')),
      'live-on-grid',
    );
    expect(reading(open, 'charge-current-s')?.missing).toEqual(['charging power from the grid of Stack']);
  });

  it('works out the load step: 5000 W · 0.5 / 230 V = 10.87 A, battery 2500 / (0.94 · 51.2) = 51.9 A', () => {
    const half = step(stepsOf(), 'load-s-L1-50');
    expect(reading(half, 'current-L1')?.nominal).toBeCloseTo(10.87, 2);
    expect(reading(half, 'battery-current')?.nominal).toBeCloseTo(51.94, 2);
    expect(half.instructions.at(-1)).toContain('the inverters');
  });

  it('never asks for more than the battery gives: one module, 0.94 · 44.8 V · 50 A = 2105.6 W', () => {
    const full = step(
      stepsOf((d) => void bank1(d).modules.splice(1)),
      'load-s-L1-100',
    );
    expect(reading(full, 'current-L1')?.nominal).toBeCloseTo(2105.6 / 230, 4);
    expect(full.instructions[1]).toContain('the battery bank');
  });

  it('shares the current of a line among its units: 9523.8 W / 230 V / 2 = 20.7 A each', () => {
    const full = step(
      stepsOf((d) => {
        threePhase(d, [2, 2, 2]);
        bank1(d).modules = Array.from({ length: 16 }, (_, n) => ({ id: `m${n}` }));
      }),
      'load-s-L2-100',
    );
    expect(reading(full, 'unit-L2-1')?.nominal).toBeCloseTo(20.7, 1);
    expect(reading(full, 'unit-L2-1')?.label).toBe('Output of unit 3');
    expect(reading(full, 'unit-L1-1')).toBeUndefined();
  });

  it('loads all lines alike where the type does not take one line alone', () => {
    const steps = stepsOf((d) => {
      d.site.supply = 'three-phase';
      Object.assign(stack1(d), {
        inverterTypeId: 'hybrid-12k-3ph',
        arrangement: 'three-phase-native',
        bank: 'none',
      });
    });
    const full = step(steps, 'load-s-L1L2L3-100');
    expect(reading(full, 'current-L3')?.nominal).toBeCloseTo(4000 / 230, 4);
    expect(steps.some((one) => one.id === 'load-s-L1-100')).toBe(false);
  });

  it('warns at a start that the model says is over', () => {
    const steps = stepsOf((d) =>
      addLoad(d, 'c2', ['L1'], { startClass: 'deep-pump', runningW: 1500, powerFactor: 0.5 }),
    );
    expect(step(steps, 'start-s-L1').cautions[0]).toContain('Do not make it unless');
    expect(step(steps, 'gate-limits').instructions.join(' ')).toContain(
      'Island: Stack L1: starting Heater c2-i (c2)',
    );
  });

  it('keeps a reading that it cannot judge, and says what is missing', () => {
    const steps = stepsOf((d) => forget(d.site, 'lineVoltageV'));
    expect(reading(step(steps, 'island-s'), 'voltage-L1')).toMatchObject({ missing: ['line voltage'] });
    expect(step(steps, 'load-s-unknown').readings[0]?.missing).toEqual(['line voltage']);
  });
});

describe('judging', () => {
  const volts: ReadingSpec = {
    id: 'v',
    label: 'V',
    unit: 'V',
    kind: 'number',
    instrument: '',
    expected: { low: 216, high: 244 },
    abort: { low: 207, high: 253 },
    missing: [],
  };
  const { expected: _none, abort: _neither, ...open } = volts;
  const yes: ReadingSpec = {
    id: 'y',
    label: 'Y',
    unit: '',
    kind: 'confirmation',
    instrument: '',
    missing: [],
  };

  it.each<{ name: string; spec: ReadingSpec; value: number | undefined; verdict: Verdict }>([
    { name: 'inside', spec: volts, value: 230, verdict: 'within' },
    { name: 'on the edge', spec: volts, value: 216, verdict: 'within' },
    { name: 'outside', spec: volts, value: 215, verdict: 'outside' },
    { name: 'past the abort limit', spec: volts, value: 200, verdict: 'abort' },
    { name: 'not taken', spec: volts, value: undefined, verdict: 'pending' },
    { name: 'without a limit', spec: open, value: 1, verdict: 'recorded' },
    {
      name: 'limit not known',
      spec: { ...volts, missing: ['line voltage'] },
      value: 230,
      verdict: 'not-judged',
    },
    {
      name: 'abort limit known all the same',
      spec: { ...volts, missing: ['x'] },
      value: 300,
      verdict: 'abort',
    },
    { name: 'yes', spec: yes, value: 1, verdict: 'within' },
    { name: 'no', spec: yes, value: 0, verdict: 'outside' },
  ])('$name: $verdict', ({ spec, value, verdict }) => expect(judgeReading(spec, value)).toBe(verdict));

  it('takes the worst of a step, and waits for what is missing', () => {
    const both: ProcedureStep = {
      id: 's',
      section: 'island',
      title: '',
      instructions: [],
      cautions: [],
      readings: [volts, yes],
    };
    const verdict = (...values: [string, number][]): Verdict => judgeStep(both, new Map(values));
    expect(verdict()).toBe('pending');
    expect(verdict(['v', 230])).toBe('pending');
    expect(verdict(['v', 230], ['y', 1])).toBe('within');
    expect(verdict(['v', 230], ['y', 0])).toBe('outside');
    expect(verdict(['v', 100])).toBe('abort');
  });
});
