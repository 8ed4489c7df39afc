import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { bank1, baseDesign, deepFreeze, stack1 } from '../testkit/designs.ts';
import { closedLoop, place, threeOnABus, withMeters, withSet, withStrings } from '../testkit/wired.ts';
import { readDesign } from './read.ts';
import type { Design } from './schema.ts';
import { withoutLost } from './withoutLost.ts';

/** Three units on a bus and four modules in a closed loop, with something that names each kind of thing. */
function full(): Design {
  const design = baseDesign();
  threeOnABus(design);
  closedLoop(design);
  bank1(design).comms = { ...(bank1(design).comms ?? { loop: 'closed', links: [] }), terminated: ['m4'] };
  withSet(design);
  withMeters(design);
  withStrings(design, 8, {
    places: ['u1', 'u3'].map((unitId) => ({ id: unitId, stackId: 's', unitId, input: 1, strings: 1 })),
  });
  design.place = {
    mounted: [
      { id: 'w1', part: 'unit', stackId: 's', partId: 'u1', xM: 1, yM: 1 },
      { id: 'w3', part: 'unit', stackId: 's', partId: 'u3', xM: 3, yM: 1 },
      { id: 'box', part: 'box', xM: 5, yM: 1, widthM: 0.3, heightM: 0.3 },
    ],
    obstacles: [],
    routes: [{ id: 'r', fromId: 'w1', toId: 'w3', points: [] }],
  };
  stack1(design).hostUnitId = 'u3';
  place(design, 'unit-output', { stackId: 's', unitId: 'u3' });
  place(design, 'unit-output', { stackId: 's', unitId: 'u1', mountedId: 'box' });
  place(design, 'battery-module', { stackId: 's', moduleId: 'm4' });
  place(design, 'generator-device', { generatorId: 'g1' });
  place(design, 'dc-switch', { arrayId: 'a' });
  design.instruments.push({ id: 'i', kind: 'sensor', readBy: 's', readByUnitId: 'u3' });
  return design;
}

const copyOf = (design: Design): Design => JSON.parse(JSON.stringify(design)) as Design;
const read = (design: Design) => readDesign(copyOf(design), SAMPLE_TYPES);

describe('what names a thing that is taken away', () => {
  it('is a design to begin with', () => expect(read(full()).ok).toBe(true));

  it.each<[string, (design: Design) => void]>([
    ['a unit', (d) => void stack1(d).units.pop()],
    ['two units', (d) => void stack1(d).units.splice(1, 2)],
    ['a module', (d) => void bank1(d).modules.pop()],
    ['the set', (d) => void (d.stacks = [])],
    ['the generator', (d) => void (d.generators = [])],
    ['the array', (d) => void (d.arrays = [])],
    ['the controller', (d) => void (d.controllers = [])],
    ['every board', (d) => void (d.partitions = [])],
    ['what hangs on the wall', (d) => void d.place?.mounted.splice(0)],
  ])('%s: goes with it, and the design stands', (_name, take) => {
    const before = deepFreeze(full());
    const after = copyOf(before);
    take(after);
    const left = withoutLost(before, deepFreeze(after));
    expect(read(left)).toMatchObject({ ok: true });
  });

  it('a unit of a bus takes its cable and its device; the terminator moves to the one beside it', () => {
    const before = full();
    const after = copyOf(before);
    stack1(after).units.pop();
    const left = withoutLost(before, after);
    const stack = stack1(left);
    expect(stack.busLinks?.map(({ id }) => id)).toEqual(['a']);
    expect(stack.terminated).toEqual(['u1', 'u2']);
    expect(stack.hostUnitId).toBeUndefined();
    expect(left.devices.map(({ id }) => id)).toEqual(['d2', 'd3', 'd4', 'd5']);
    expect(left.place?.mounted.map(({ id }) => id)).toEqual(['w1', 'box']);
    expect(left.place?.routes).toEqual([]);
    expect(left.arrays[0]?.places?.map(({ id }) => id)).toEqual(['u1']);
    expect(left.instruments).toEqual([{ id: 'i', kind: 'sensor', readBy: 's' }]);
  });

  it('a module of a loop likewise; the host is no end of it', () => {
    const before = full();
    const after = copyOf(before);
    bank1(after).modules.pop();
    expect(bank1(withoutLost(before, after)).comms).toMatchObject({
      links: [{ id: 'l1' }, { id: 'l2' }, { id: 'l3' }],
      terminated: ['m3'],
    });
    bank1(after).modules = [{ id: 'new' }];
    expect(bank1(withoutLost(before, after)).comms).toMatchObject({ links: [], terminated: [] });
  });

  it('a board takes no circuit with it; a box that comes down leaves its device', () => {
    const before = full();
    const after = copyOf(before);
    after.partitions = [];
    after.place?.mounted.pop();
    const left = withoutLost(before, after);
    expect(left.circuits.map((one) => ['partitionId' in one, one.name])).toEqual(
      before.circuits.map(({ name }) => [false, name]),
    );
    expect(left.devices.find(({ id }) => id === 'd2')).not.toHaveProperty('mountedId');
  });

  it('stays as it is where nothing was taken away, and where it led nowhere before', () => {
    const before = full();
    place(before, 'unit-output', { stackId: 's', unitId: 'nobody' });
    const after = copyOf(before);
    after.name = 'Other';
    expect(withoutLost(before, after)).toBe(after);
    after.generators = [];
    expect(withoutLost(before, after).devices.map(({ unitId }) => unitId)).toContain('nobody');
  });
});
