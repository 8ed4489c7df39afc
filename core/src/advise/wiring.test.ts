import { describe, expect, it } from 'vitest';
import { analyse } from '../checks/analyse.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { TypeOf } from '../catalogue/schema.ts';
import { compileSupply } from '../installation/supply.ts';
import { loadStages } from '../figures/loads/loadStages.ts';
import { addLoad, bank1, baseDesign, stack1 } from '../testkit/designs.ts';
import { planBus, planComms, plannedAddress } from './wiring.ts';

function sample<K extends 'inverter' | 'battery'>(kind: K, id: string): TypeOf<K> {
  const found = SAMPLE_TYPES.find((type): type is TypeOf<K> => type.kind === kind && type.id === id);
  if (found === undefined) throw new Error(`${id} is a sample.`);
  return found;
}
const states = (ids: readonly string[], design = baseDesign()): string[] =>
  analyse(design, SAMPLE_TYPES)
    .findings.filter((one) => ids.includes(one.check) && one.mode === 'island')
    .map((one) => `${one.check} ${one.state}`)
    .sort();

describe('planned wiring passes the checks that judge it', () => {
  it.each([
    ['hybrid-5k-1ph', 4],
    ['hybrid-8k-ring', 3],
  ])('parallel bus of %s, %i units', (typeId, count) => {
    const design = baseDesign();
    const stack = stack1(design);
    stack.inverterTypeId = typeId;
    stack.units = Array.from({ length: count }, (_, index) => ({ id: `u${index + 1}` }));
    const plan = planBus(stack, sample('inverter', typeId));
    Object.assign(stack, {
      busLinks: [...(plan?.busLinks ?? [])],
      terminated: [...(plan?.terminated ?? [])],
    });
    expect(plan?.busLinks).toHaveLength(typeId === 'hybrid-8k-ring' ? count : count - 1);
    expect(states(['stack.parallel-bus', 'stack.bus-ends'], design)).toEqual([
      'stack.bus-ends within',
      'stack.parallel-bus within',
    ]);
  });

  it.each(['lfp-51v-100ah', 'lfp-51v-280ah'])('battery bus of %s', (typeId) => {
    const design = baseDesign();
    const bank = bank1(design);
    bank.batteryTypeId = typeId;
    const battery = sample('battery', typeId);
    const comms = planComms(bank, battery, sample('inverter', 'hybrid-5k-1ph'));
    if (comms === undefined) throw new Error('They share a protocol.');
    bank.comms = comms;
    bank.modules.forEach((module, place) =>
      Object.assign(module, { address: plannedAddress(battery, place) }),
    );
    const checks = ['bank.comms', 'bank.addresses', 'bank.bus-ends', 'bank.loop'];
    expect(states(checks, design)).toEqual([...checks].sort().map((id) => `${id} within`));
  });

  it('plans no closed loop where the two share no protocol', () => {
    const bank = bank1(baseDesign());
    expect(
      planComms(bank, sample('battery', 'lead-48v-200ah'), sample('inverter', 'hybrid-5k-1ph')),
    ).toBeUndefined();
  });
});

describe('load steps of a generator', () => {
  it('fills steps of 2400 VA, what must run first, and says where one circuit is too much', () => {
    const design = baseDesign();
    const rank = (id: string, watts: number, importance: 'must' | 'could'): void =>
      addLoad(design, id, ['L1'], { runningW: watts, importance });
    design.circuits = [];
    rank('c1', 1000, 'could');
    rank('c2', 1500, 'must');
    rank('c3', 800, 'must');
    rank('c4', 3000, 'could');
    const supply = compileSupply(design.site);
    if (!supply.known) throw new Error('The base design has a supply.');
    const stages = loadStages(
      design.circuits,
      supply.value,
      [0],
      { factor: 1, wholeVa: 4000, perLineVa: 4000, engineW: { known: true, value: 4000 } },
      0.6,
    );
    expect(
      stages.map((one) => [one.circuits.map((circuit) => circuit.id), Math.round(one.watts), one.isTooLarge]),
    ).toEqual([
      [['c2', 'c3'], 2300, false],
      [['c4'], 3000, true],
      [['c1'], 1000, false],
    ]);
  });
});
