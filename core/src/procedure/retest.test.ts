import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { diff } from '../design/edits.ts';
import type { Design } from '../design/schema.ts';
import { addLoad, bank1, baseDesign, circuit1, item1, stack1 } from '../testkit/designs.ts';
import { closedLoop, threeOnABus } from '../testkit/wired.ts';
import { procedureFor } from './generate.ts';
import { partOf, retestAfter } from './retest.ts';

function retests(change: (design: Design) => void, base: (design: Design) => void = () => undefined) {
  const before = baseDesign();
  base(before);
  const after = structuredCloneOf(before);
  change(after);
  return retestAfter(
    procedureFor(before, SAMPLE_TYPES),
    procedureFor(after, SAMPLE_TYPES),
    diff(before, after).map(({ path }) => path),
    ['s'],
  );
}
const structuredCloneOf = (design: Design): Design => JSON.parse(JSON.stringify(design)) as Design;
const ids = (found: ReturnType<typeof retests>): string[] => found.map(({ step }) => step.id);

describe('what a change asks to be tested again', () => {
  it('is nothing for a name, a note, a drawing or a place on the wall', () => {
    expect(retests((d) => (d.name = 'Other'))).toEqual([]);
    expect(retests((d) => (stack1(d).name = 'Upper set'))).toEqual([]);
    expect(
      retests((d) =>
        Object.assign(circuit1(d), { note: 'By the door', cable: { lengthM: 12, areaMm2: 2.5 } }),
      ),
    ).toEqual([]);
    expect(retests((d) => (item1(d).name = 'Other heater'))).toEqual([]);
  });

  it('is firmware and what hangs on it for other firmware', () => {
    const found = retests((d) => {
      for (const unit of stack1(d).units) unit.firmware = '2';
    }, threeOnABus);
    expect(ids(found)).toEqual(
      expect.arrayContaining(['firmware-s', 'live-on-grid', 'island-s', 'return-s']),
    );
    expect(ids(found).some((id) => id.startsWith('load-'))).toBe(false);
    expect(new Set(found.map(({ why }) => why))).toEqual(new Set(['its firmware was changed']));
  });

  it('is the bank and everything under load for a longer lead, and no start of a generator', () => {
    const found = retests((d) => (bank1(d).lead = { lengthM: 3, areaMm2: 50 }), closedLoop);
    expect(ids(found)).toEqual(
      expect.arrayContaining(['wake-s', 'battery-on-s', 'load-s-L1-100', 'endurance-s']),
    );
    expect(ids(found)).not.toContain('return-s');
  });

  it('is settings and endurance for a level of charge, and the bus of the bank for its comms', () => {
    expect(ids(retests((d) => (bank1(d).cutoffSoc = 0.2)))).toEqual(['settings-s', 'endurance-s']);
    const bus = retests((d) => void bank1(d).comms?.links.pop(), closedLoop);
    expect(ids(bus)).toEqual(['wake-s', 'inverter-on-s', 'live-on-grid']);
  });

  it('is what expects other figures, whatever was touched: a voltage of the site moves every band of volts', () => {
    const found = retests((d) => (d.site.lineVoltageV = 240));
    expect(found.find(({ step }) => step.id === 'load-s-L1-25')?.why).toBe('it expects other figures now');
    expect(ids(found)).toContain('island-s');
    expect(ids(found)).not.toContain('firmware-s');
  });

  it('is a new step where there was none, and bonds where a device or another board is meant', () => {
    const added = retests((d) => {
      d.generators.push({
        id: 'g',
        name: 'Set',
        typeId: 'diesel-20k-3ph',
        connection: 'generator-port',
        stackId: 's',
      });
      stack1(d).generatorChargeW = 1000;
    });
    expect(added.find(({ step }) => step.id === 'generator-g')?.why).toBe('it was not part of that test');
    expect(ids(retests((d) => (circuit1(d).partitionId = 'g')))).toEqual(
      expect.arrayContaining(['island-s', 'bonds']),
    );
    expect(ids(retests((d) => (circuit1(d).device = { curve: 'B' })))).toEqual(['bonds']);
    expect(ids(retests((d) => (item1(d).longestInterruptionMs = 900)))).toEqual(['island-s']);
    const loads = retests(
      (d) => (item1(d).runningW = 2400),
      (d) => addLoad(d, 'Pump', ['L1'], { runningW: 500, startClass: 'compressor' }),
    );
    expect(ids(loads)).toEqual(expect.arrayContaining(['start-s-L1', 'endurance-s']));
    expect(ids(loads)).not.toContain('bonds');
  });

  it('is everything for a changed type, and nothing for one that only joins the job', () => {
    const own = SAMPLE_TYPES.find(({ id }) => id === 'hybrid-5k-1ph');
    const withType =
      (filterLeakageMa: number) =>
      (d: Design): void => {
        if (own?.kind === 'inverter') d.types.push({ ...own, id: 'own', filterLeakageMa });
      };
    expect(retests(withType(3))).toEqual([]);
    const changed = retests((d) => Object.assign(d.types[0] ?? {}, { filterLeakageMa: 9 }), withType(3));
    expect(new Set(changed.map(({ why }) => why))).toEqual(new Set(['a type in use was changed']));
    expect(ids(changed)).toContain('bonds');
  });

  it('is everything where a unit was replaced, or nobody knows what was touched', () => {
    const whole = procedureFor(baseDesign(), SAMPLE_TYPES).steps.filter(({ section }) => section !== 'gates');
    expect(retests((d) => stack1(d).units.forEach((unit) => (unit.serial = 'B2'))).length).toBe(whole.length);
    const before = procedureFor(baseDesign(), SAMPLE_TYPES);
    const strange = retestAfter(before, before, [['somethingNew', 'x']], ['s']);
    expect(strange.length).toBe(whole.length);
    expect(strange[0]?.why).toBe('what was changed may touch everything');
  });

  it('of one set leaves the other alone', () => {
    const before = procedureFor(baseDesign(), SAMPLE_TYPES);
    expect(
      retestAfter(before, before, [['stacks', 'other', 'bank', 'lead']], ['s', 'other']).map(
        ({ step }) => step.id,
      ),
    ).toEqual(['live-on-grid']);
  });

  it('begins with every gate, and says what it follows', () => {
    const whole = procedureFor(baseDesign(), SAMPLE_TYPES);
    const part = partOf(whole, new Set(['bonds']), { run: 3, revision: 7 });
    const gates = whole.steps.filter(({ section }) => section === 'gates');
    expect(part.steps.map(({ id }) => id)).toEqual([...gates.map(({ id }) => id), 'bonds']);
    expect(part.retest).toEqual({ run: 3, revision: 7, leftOut: whole.steps.length - gates.length - 1 });
  });
});
