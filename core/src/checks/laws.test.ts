import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { analyse } from './analyse.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Line } from '../values/quantities.ts';
import { readDesign } from '../design/read.ts';
import type { Circuit, Design } from '../design/schema.ts';
import { planBus, planComms, plannedAddress } from '../advise/wiring.ts';
import { bank1, baseDesign, heater, stack1, threePhase } from '../testkit/designs.ts';
import type { RegisteredFinding } from './registry.ts';

const LINES: readonly Line[] = ['L1', 'L2', 'L3'];

const circuit = (lines: fc.Arbitrary<Line[]>): fc.Arbitrary<Omit<Circuit, 'id'>> =>
  fc
    .record({
      lines,
      runningW: fc.integer({ min: 1, max: 4000 }),
      powerFactor: fc.integer({ min: 40, max: 100 }).map((percent) => percent / 100),
      startClass: fc.constantFrom('steady', 'compressor', 'deep-pump', 'electronic', 'star-delta' as const),
      quantity: fc.integer({ min: 1, max: 3 }),
    })
    .map(({ lines: on, ...item }) => ({
      name: 'c',
      lines: on,
      partitionId: 'b',
      items: [heater('i', item)],
    }));

const anyLines = fc.constantFrom<Line[]>(
  ['L1'],
  ['L2'],
  ['L3'],
  ['L1', 'L2'],
  ['L2', 'L3'],
  ['L1', 'L2', 'L3'],
);

function designOf(circuits: readonly Omit<Circuit, 'id'>[]): Design {
  const design = baseDesign();
  threePhase(design, [2, 2, 2]);
  design.circuits = circuits.map((one, index) => ({ ...one, id: `c${index}` }));
  return design;
}
const findingsOf = (design: Design): readonly RegisteredFinding[] => analyse(design, SAMPLE_TYPES).findings;
const keyOf = (finding: RegisteredFinding): string =>
  `${finding.check} ${finding.mode} ${finding.subject.id}`;
const byKey = (findings: readonly RegisteredFinding[]): Map<string, RegisteredFinding> =>
  new Map(findings.map((one) => [keyOf(one), one]));

describe('what must hold of all checks together', () => {
  it('finds the same whatever the order of the circuits', () => {
    fc.assert(
      fc.property(fc.array(circuit(anyLines), { minLength: 2, maxLength: 8 }), (circuits) => {
        const there = byKey(findingsOf(designOf(circuits)));
        const back = byKey(findingsOf(designOf([...circuits].reverse())));
        expect([...back.keys()].sort()).toEqual([...there.keys()].sort());
        for (const [key, one] of there) {
          expect(back.get(key)?.state, key).toBe(one.state);
          expect(back.get(key)?.value ?? 0).toBeCloseTo(one.value ?? 0, 6);
        }
      }),
    );
  });

  it('finds the same on the next line when every load moves to the next line', () => {
    const next = (line: Line): Line => LINES[(LINES.indexOf(line) + 1) % 3] ?? 'L1';
    fc.assert(
      fc.property(fc.array(circuit(anyLines), { minLength: 1, maxLength: 6 }), (circuits) => {
        const turned = circuits.map((one) => ({ ...one, lines: one.lines?.map(next) ?? [] }));
        const island = (design: Design): Map<string, RegisteredFinding> =>
          byKey(findingsOf(design).filter((one) => one.mode === 'island' && one.subject.kind === 'line'));
        const after = island(designOf(turned));
        for (const [key, one] of island(designOf(circuits))) {
          const moved = after.get(
            key.replace(/L\d$/, (line) => next(LINES.find((known) => known === line) ?? 'L1')),
          );
          expect(moved?.value ?? 0, key).toBeCloseTo(one.value ?? 0, 5);
          expect(moved?.limit ?? 0, key).toBeCloseTo(one.limit ?? 0, 5);
        }
      }),
    );
  });

  it('never leaves more headroom on a line for more load on it', () => {
    const onL1 = circuit(fc.constant<Line[]>(['L1']));
    fc.assert(
      fc.property(fc.array(onL1, { minLength: 1, maxLength: 6 }), onL1, (circuits, added) => {
        const less = byKey(findingsOf(designOf(circuits)));
        const more = byKey(findingsOf(designOf([...circuits, added])));
        for (const check of ['load.continuous', 'load.power', 'surge.largest-start', 'surge.cold-pickup']) {
          const key = `${check} island s/L1`;
          const before = less.get(key)?.margin;
          if (before !== undefined)
            expect(more.get(key)?.margin ?? -Infinity, key).toBeLessThanOrEqual(before + 1e-9);
        }
      }),
    );
  });
});

/** Plugs, addresses and hangs everything on a design that the checks of stack, bank and PV read. */
function wireWhole(design: Design): void {
  const stack = stack1(design);
  const bank = bank1(design);
  const type = (id: string) => SAMPLE_TYPES.find((one) => one.id === id);
  const [inverter, battery] = [type('hybrid-5k-1ph'), type('lfp-51v-100ah')];
  if (inverter?.kind !== 'inverter' || battery?.kind !== 'battery') throw new Error('They are samples.');
  const bus = planBus(stack, inverter);
  stack.busLinks = [...(bus?.busLinks ?? [])];
  stack.terminated = [...(bus?.terminated ?? [])];
  stack.hostUnitId = stack.units[0]?.id;
  stack.transferDeviceTypeId = 'changeover-63a-4p';
  for (const unit of stack.units)
    Object.assign(unit, { batteryProfile: 'rack', acLead: { lengthM: 2, areaMm2: 10 } });
  bank.breakerTypeId = 'dc-breaker-125a';
  bank.comms = planComms(bank, battery, inverter);
  bank.modules.forEach((module, place) => (module.address = plannedAddress(battery, place)));
  design.site.lowestC = -10;
  Object.assign(design.site, {
    earthing: 'TN-C-S',
    bypassNeutral: 'switched',
    bypassInterlocked: 'yes',
    localElectrode: 'yes',
    electrodeOhm: 40,
    surviveUnitLoss: 'yes',
  });
  design.earthPoints.push({
    id: 'e1',
    name: 'main earthing bar',
    joins: ['chassis', 'backed-up-earth', 'grid-earth', 'electrode', 'generator-frame'],
  });
  const place = { id: 'p', stackId: 's', unitId: stack.units[0]?.id ?? '', input: 1, strings: 1 };
  design.arrays.push(
    {
      id: 'a1',
      name: 'South',
      coupling: 'dc',
      moduleTypeId: 'pv-430w',
      modulesPerString: 9,
      directionDeg: 180,
      tiltDeg: 30,
      places: [place],
    },
    {
      id: 'a2',
      name: 'Shed',
      coupling: 'ac',
      ratedAcW: 3000,
      partitionId: 'b',
      curtailedBy: 'frequency',
      withGenerator: 'disconnected',
    },
  );
}

describe('forgetting a figure', () => {
  const whole = designOf([
    {
      name: 'pump',
      lines: ['L1'],
      partitionId: 'b',
      items: [heater('i1', { startClass: 'deep-pump', powerFactor: 0.7 })],
    },
    { name: 'rack', lines: ['L2'], partitionId: 'b', items: [heater('i2', { startClass: 'electronic' })] },
    { name: 'heat', lines: ['L1', 'L2', 'L3'], partitionId: 'g', items: [heater('i3')] },
  ]);
  whole.generators.push({
    id: 'g1',
    name: 'Set',
    typeId: 'diesel-20k-3ph',
    connection: 'generator-port',
    stackId: 's',
  });

  wireWhole(whole);

  /** What is a choice of its own, or a name, and not a figure that a limit needs. */
  const NOT_FIGURES = new Set([
    'id',
    'name',
    'format',
    'kind',
    'partitionId',
    'stackId',
    'connection',
    'maintenanceBypass',
    // Without it the question is asked, and no finding of a lost unit stands.
    'surviveUnitLoss',
    'importance',
  ]);

  /** Every optional field of the design as a function that takes it away from a copy. */
  const forgettings: { name: string; take: (copy: Design) => void }[] = [];
  const visit = (value: unknown, path: string[]): void => {
    if (typeof value !== 'object' || value === null) return;
    for (const [key, inner] of Object.entries(value)) {
      visit(inner, [...path, key]);
      if (Array.isArray(value) || NOT_FIGURES.has(key)) continue;
      const take = (copy: unknown): void => {
        let target = copy;
        for (const part of path) {
          target =
            typeof target === 'object' && target !== null
              ? new Map(Object.entries(target)).get(part)
              : undefined;
        }
        if (typeof target === 'object' && target !== null) Reflect.deleteProperty(target, key);
      };
      forgettings.push({ name: [...path, key].join('.'), take });
    }
  };
  visit(whole, []);
  const optional = forgettings.filter(({ take }) => {
    const copy: unknown = JSON.parse(JSON.stringify(whole));
    take(copy as Design);
    return readDesign(copy, SAMPLE_TYPES).ok;
  });

  it('has figures to forget', () => expect(optional.length).toBeGreaterThan(90));

  it.each(optional)(
    '$name: a finding stays as it is or becomes unknown; none comes out better',
    ({ take }) => {
      const copy: unknown = JSON.parse(JSON.stringify(whole));
      take(copy as Design);
      const read = readDesign(copy, SAMPLE_TYPES);
      if (!read.ok) throw new Error(read.problems[0]?.message);
      const before = byKey(findingsOf(whole));
      for (const finding of findingsOf(read.value)) {
        const known = before.get(keyOf(finding));
        if (finding.state === 'unknown') expect(finding.missing.length, keyOf(finding)).toBeGreaterThan(0);
        else expect(finding.state, keyOf(finding)).toBe(known?.state);
      }
    },
  );
});
