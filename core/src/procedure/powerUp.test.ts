import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { typeMessage } from '../catalogue/messages.ts';
import { equipmentType } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';
import { baseDesign, stack1 } from '../testkit/designs.ts';
import { closedLoop, threeOnABus, withMeters, withSet, withStrings } from '../testkit/wired.ts';
import { procedureFor } from './generate.ts';
import type { ProcedureStep } from './schema.ts';

const stepsOf = (edit: (design: Design) => void): readonly ProcedureStep[] => {
  const design = baseDesign();
  edit(design);
  return procedureFor(design, SAMPLE_TYPES).steps;
};
const ids = (steps: readonly ProcedureStep[], section: ProcedureStep['section']): string[] =>
  steps.filter((one) => one.section === section).map(({ id }) => id);
const stepOf = (steps: readonly ProcedureStep[], id: string): ProcedureStep => {
  const found = steps.find((one) => one.id === id);
  if (found === undefined) throw new Error(`No step ${id}.`);
  return found;
};
/** The base with a type of its own. */
function withType(design: Design, figures: object): void {
  const found = SAMPLE_TYPES.find(({ id }) => id === 'hybrid-5k-1ph');
  if (found?.kind !== 'inverter') throw new Error('It is a sample.');
  design.types.push({ ...found, id: 'own-inverter', ...figures });
  stack1(design).inverterTypeId = 'own-inverter';
}

describe('from dead to live', () => {
  it('follows the order of the type: battery, inverter, grid, strings last', () => {
    const steps = stepsOf((d) => {
      closedLoop(d);
      withStrings(d, 9);
    });
    expect(ids(steps, 'power-up')).toEqual([
      'wake-s',
      'battery-on-s',
      'inverter-on-s',
      'firmware-s',
      'settings-s',
      'grid-on-s',
      'pv-on-s',
    ]);
  });

  it('or the grid first, where the type wants it', () => {
    const steps = stepsOf((d) => withType(d, { powerUpOrder: 'grid-then-battery' }));
    expect(ids(steps, 'power-up').slice(0, 3)).toEqual(['grid-on-s', 'battery-on-s', 'inverter-on-s']);
    expect(stepOf(steps, 'grid-on-s').instructions[0]).toContain(
      'comes first because the type starts from it',
    );
  });

  it('says where a type states no order', () => {
    const steps = stepsOf((d) => {
      withType(d, {});
      const own = d.types.at(-1);
      if (own !== undefined) Reflect.deleteProperty(own, 'powerUpOrder');
    });
    expect(stepOf(steps, 'battery-on-s').instructions[0]).toContain('does not state its order');
  });

  it('counts modules and units, and sets them as their type wants', () => {
    const steps = stepsOf((d) => {
      threeOnABus(d);
      closedLoop(d);
      stack1(d).hostUnitId = 'u2';
    });
    expect(stepOf(steps, 'wake-s').readings[0]?.expected).toEqual({ low: 4, high: 4 });
    const on = stepOf(steps, 'inverter-on-s');
    expect(on.readings[0]?.nominal).toBe(3);
    expect(on.instructions.join()).toContain('Switch unit 2 on first');
    expect(stepOf(steps, 'settings-s').instructions[0]).toContain('with the parallel cable joined');
  });

  it('holds the battery at each port to what its modules can have: 4 modules of 44.8 to 57.6 V', () => {
    const spec = stepOf(
      stepsOf(() => undefined),
      'battery-on-s',
    ).readings[0];
    expect(spec?.expected?.high).toBeCloseTo(57.6, 6);
    expect(spec?.abort?.high).toBeCloseTo(57.6 * 1.02, 6);
  });

  it('commissions a controller last, with its sets and meters', () => {
    const steps = stepsOf((d) => void withMeters(d));
    expect(ids(steps, 'power-up').at(-1)).toBe('controller-c');
    expect(stepOf(steps, 'controller-c').readings.map(({ id }) => id)).toEqual([
      'sets-found',
      'meter-m1',
      'meter-m2',
      'meter-m3',
    ]);
  });
});

describe('what the test has besides its load steps', () => {
  it('a generator: charging of all units, and 80 % of its engine at the site', () => {
    const steps = stepsOf((d) => {
      withSet(d);
      stack1(d).generatorChargeW = 300;
    });
    const step = stepOf(steps, 'generator-g1');
    expect(step.readings.find(({ id }) => id === 'charge-power')?.nominal).toBe(300);
    // 4 kVA at pf 1 or as stated, not derated at 100 m and 25 °C.
    expect(step.instructions.join()).toMatch(/stay below [\d.]+ kW, 80 % of the engine at this site/);
  });

  it('never looks for more charging than the engine is to give in all', () => {
    const steps = stepsOf((d) => {
      withSet(d);
      stack1(d).generatorChargeW = 9000;
    });
    const high = stepOf(steps, 'generator-g1').readings.find(({ id }) => id === 'charge-power')?.expected
      ?.high;
    // 4 kVA · pf 1 · 0.8 = 3200 W, far below 9000 W · 1.1.
    expect(high).toBeCloseTo(4000 * 1 * 0.8, 6);
  });

  it('one bond in every mode that can be brought about', () => {
    const { readings } = stepOf(
      stepsOf(() => undefined),
      'bonds',
    );
    expect(readings.map(({ id }) => id)).toEqual([
      'bonds-on-grid',
      'bonds-island',
      'bonds-maintenance-bypass',
      'residual',
    ]);
    expect(readings[0]?.expected).toEqual({ low: 1, high: 1 });
  });

  it('a unit lost, only where that must be survived', () => {
    const lost = (survive: 'yes' | 'no'): boolean =>
      stepsOf((d) => {
        threeOnABus(d);
        d.site.surviveUnitLoss = survive;
      }).some(({ id }) => id === 'loss-s');
    expect([lost('yes'), lost('no')]).toEqual([true, false]);
  });

  it('shed stages, and power that is held back', () => {
    const steps = stepsOf((d) => {
      d.partitions.push({
        id: 'x',
        name: 'Workshop',
        kind: 'shed',
        stackId: 's',
        shedStage: 1,
        shedWhen: 'below-soc',
        shedBelowSoc: 0.4,
      });
      d.arrays.push({
        id: 'a',
        name: 'Roof',
        coupling: 'ac',
        ratedAcW: 3000,
        partitionId: 'b',
        curtailedBy: 'frequency',
      });
    });
    expect(stepOf(steps, 'shed-s').instructions.join()).toContain('Workshop drops below 40 %');
    expect(stepOf(steps, 'held-back-a').readings[0]?.expected).toEqual({ low: 50, high: 51 });
    // While the sun shines the set may run as high in its other steps; without such an array ± 0.5 Hz.
    const frequency = (all: ReturnType<typeof stepsOf>) =>
      ['island-s', 'load-s-L1-100'].map(
        (id) => stepOf(all, id).readings.find((one) => one.id === 'frequency')?.expected,
      );
    expect(frequency(steps)).toEqual([
      { low: 49.5, high: 51 },
      { low: 49.5, high: 51 },
    ]);
    expect(frequency(stepsOf(() => undefined))[0]).toEqual({ low: 49.5, high: 50.5 });
  });

  it('without a grid nothing is closed to it, and nothing is proven on it', () => {
    const steps = stepsOf((d) => void (d.site.grid = 'none'));
    expect(steps.some(({ id }) => id === 'grid-on-s' || id === 'live-on-grid')).toBe(false);
  });
});

describe('an order of switches that a type has of its own', () => {
  const order = (switchOrder: readonly string[]) => (d: Design) => {
    withType(d, { switchOrder, selfCheckS: 60 });
    withStrings(d, 9);
  };

  it.each([
    [
      ['battery', 'enable', 'dc', 'ac'],
      ['battery-on-s', 'inverter-on-s', 'firmware-s', 'settings-s', 'pv-on-s', 'grid-on-s', 'self-check-s'],
    ],
    [
      ['ac', 'battery', 'enable', 'dc'],
      ['grid-on-s', 'battery-on-s', 'inverter-on-s', 'firmware-s', 'settings-s', 'self-check-s', 'pv-on-s'],
    ],
  ])('%j', (switches, steps) => {
    const made = stepsOf(order(switches));
    expect(ids(made, 'power-up')).toEqual(steps);
    expect(stepOf(made, 'inverter-on-s').instructions[0]).toContain('by its enable switch');
  });

  it('is told with all of its switches', () => {
    expect(stepOf(stepsOf(order(['battery', 'enable', 'dc', 'ac'])), 'battery-on-s').instructions[0]).toBe(
      'It comes here in the type’s own order: battery, enable switch, DC, AC.',
    );
  });

  it.each([[['battery', 'enable', 'dc']], [['battery', 'battery', 'dc', 'ac']]])('%j is none', (switches) => {
    const found = SAMPLE_TYPES.find(({ id }) => id === 'hybrid-5k-1ph');
    expect(equipmentType.safeParse({ ...found, switchOrder: switches }).success).toBe(false);
  });
});

describe('messages of the types', () => {
  const messages = [
    { text: 'no grid', at: 'inverter-on', means: 'clears', until: 'grid-on' },
    { text: 'E7', at: 'inverter-on', means: 'stop' },
    { text: 'green lamp', at: 'grid-on', means: 'right' },
  ] as const;
  const linesOf = (step: ProcedureStep) => step.instructions.filter((line) => line.includes('“'));
  const goneOf = (step: ProcedureStep) =>
    step.readings.filter(({ id }) => id.startsWith('gone-')).map(({ label }) => label);

  it('stand in the step in which they come, and are read where they must be gone', () => {
    const steps = stepsOf((d) => withType(d, { messages }));
    const on = stepOf(steps, 'inverter-on-s');
    expect(linesOf(on)).toEqual([
      'Normal now, and gone once the grid is closed: the inverter shows “no grid”.',
      'Stop here: the inverter shows “E7”.',
    ]);
    // Told by the type, it is not told in general as well.
    expect(on.instructions.join(' ')).not.toContain('a message that there is none');
    expect(linesOf(stepOf(steps, 'grid-on-s'))).toEqual(['Right here: the inverter shows “green lamp”.']);
    expect(goneOf(stepOf(steps, 'grid-on-s'))).toEqual(['“no grid” is gone from the inverter']);
    expect(goneOf(on)).toEqual([]);
  });

  it('stay where nothing of the installation ends them', () => {
    const steps = stepsOf((d) => {
      withType(d, { messages });
      d.site.grid = 'none';
    });
    expect(linesOf(stepOf(steps, 'inverter-on-s'))[0]).toBe(
      'Normal from here on, since nothing in this installation ends it: the inverter shows “no grid”.',
    );
    expect(steps.flatMap(goneOf)).toEqual([]);
  });

  it('do not come where the order of the type has ended them before', () => {
    const steps = stepsOf((d) => withType(d, { messages, powerUpOrder: 'grid-then-battery' }));
    expect(linesOf(stepOf(steps, 'inverter-on-s'))[0]).toBe(
      'Not to be seen here, since the grid is closed: the inverter shows “no grid”.',
    );
    expect(goneOf(stepOf(steps, 'grid-on-s'))).toEqual([]);
  });

  it('of a battery stand beside those of the inverter', () => {
    const steps = stepsOf((d) => {
      closedLoop(d);
      withType(d, { messages: [] });
    });
    expect(linesOf(stepOf(steps, 'wake-s'))[0]).toBe('Right here: the battery shows “blue lamp, steady”.');
    expect(goneOf(stepOf(steps, 'inverter-on-s'))).toEqual(['“no host” is gone from the battery']);
  });

  it.each([
    ['clears without an end', { means: 'clears' }],
    ['right with an end', { means: 'right', until: 'grid-on' }],
    ['an end before its beginning', { means: 'clears', until: 'battery-on' }],
  ])('%s is refused', (_, over) => {
    expect(typeMessage.safeParse({ text: 'x', at: 'inverter-on', ...over }).success).toBe(false);
  });
});

describe('the self-check of a type', () => {
  it('comes after all sources but the strings, with its time and its end', () => {
    const steps = stepsOf((d) => {
      withType(d, { selfCheckS: 180 });
      withStrings(d, 9);
    });
    expect(ids(steps, 'power-up').slice(-3)).toEqual(['grid-on-s', 'self-check-s', 'pv-on-s']);
    expect(stepOf(steps, 'self-check-s').readings).toMatchObject([
      { id: 'self-check-s', expected: { low: 0, high: 180 } },
      { id: 'self-check', kind: 'confirmation' },
    ]);
  });

  it.each([
    ['none', false],
    [undefined, true],
  ])('is absent where the type says %s; what is not known is told', (selfCheckS, isTold) => {
    const steps = stepsOf((d) => withType(d, { selfCheckS }));
    expect(ids(steps, 'power-up')).not.toContain('self-check-s');
    expect(stepOf(steps, 'settings-s').instructions.join(' ').includes('self-check is not known')).toBe(
      isTold,
    );
  });
});
