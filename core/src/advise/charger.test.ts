import { describe, expect, it } from 'vitest';
import type { InverterType } from '../catalogue/inverterType.ts';
import { analyse } from '../checks/analyse.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { applyEdits } from '../design/applyEdits.ts';
import { readDesign } from '../design/read.ts';
import type { Design } from '../design/schema.ts';
import { bank1, baseDesign, deepFreeze, forget, item1, stack1 } from '../testkit/designs.ts';
import { withRated } from '../testkit/wired.ts';
import { adviseCharger } from './charger.ts';

function withSet(edit: (design: Design) => void = () => undefined): Design {
  const design = baseDesign();
  design.generators.push({
    id: 'g1',
    name: 'Set',
    typeId: 'petrol-4k-1ph',
    connection: 'transfer-switch',
    stackId: 's',
  });
  edit(design);
  return deepFreeze(design);
}

/** The inverter of the base design with other figures. */
function withInverter(design: Design, figures: Partial<InverterType>): void {
  const own = SAMPLE_TYPES.find((one) => one.id === 'hybrid-5k-1ph');
  if (own?.kind !== 'inverter') throw new Error('The samples have it.');
  design.types.push({ ...own, ...figures });
}

describe('the charger setting for a generator', () => {
  it('0.8 · 4000 − 2300 = 900 W, and loading is then within its target', () => {
    const design = withSet();
    const [proposal] = adviseCharger(design, SAMPLE_TYPES).proposals;
    if (proposal === undefined) throw new Error('Something is proposed.');
    const applied = applyEdits(design, proposal.edits);
    const read = applied.ok ? readDesign(applied.value, SAMPLE_TYPES) : applied;
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expect(read.value.stacks[0]?.gridChargeW).toBe(900);
    const loading = analyse(read.value, SAMPLE_TYPES).findings.find(
      (one) => one.check === 'generator.loading',
    );
    expect([loading?.state, loading?.value, loading?.limit]).toEqual(['tight', 3200, 3200]);
  });

  it('names the limits that it could not look at', () => {
    const design = withSet((draft) => forget(draft.site, 'equipmentLowestC'));
    expect(adviseCharger(design, SAMPLE_TYPES).proposals[0]?.notes.join(' ')).toContain(
      'Not looked at, because it is not known: how cold it gets where the battery stands.',
    );
  });

  it('with 1000 var on the line: √(3200² − 1000²) − 2300 = 739.7, down to 700 W', () => {
    const design = withSet((draft) => {
      const item = item1(draft);
      item.powerFactor = 2300 / Math.hypot(2300, 1000);
    });
    expect(adviseCharger(design, SAMPLE_TYPES).proposals[0]?.parts[0]?.label).toBe(
      'Charging of each unit: 2 kW to 700 W',
    );
  });

  it('15 kVA at 0.8 with 8.2 kW: 0.8 · 12000 − 8200 = 1400 W, not the 3450 W of its kVA', () => {
    const design = withSet((draft) => {
      draft.generators = [];
      withRated(draft, { ratedVa: 15000, powerFactor: 0.8 });
      item1(draft).runningW = 8200;
      withInverter(draft, { gridPortA: 60 });
    });
    const [proposal] = adviseCharger(design, SAMPLE_TYPES).proposals;
    expect(proposal?.parts[0]?.label).toBe('Charging of each unit: 2 kW to 1.4 kW');
    expect(proposal?.notes.join(' ')).toContain('the kW of its engine');
  });

  it.each([
    // 10 A at 230 V less the load of 920 W.
    ['the port', { item: 920, type: { gridPortA: 10 } }, '1.35 kW', 'the grid port'],
    // 20 A at 51.2 V = 1024 W.
    ['the inverter', { item: 500, type: { maxChargeA: 20 } }, '1 kW', 'charging current of the inverter'],
    ['the setting', { item: 500, stack: { chargeCurrentA: 25 } }, '1.25 kW', 'the charge setting'],
    // One module takes 50 A: 2560 W, less than 0.8 · 4000 − 500 = 2700.
    ['the bank', { item: 500, modules: 1 }, '2.55 kW', 'the charge limit of the bank'],
  ] as const)('%s sets it', (_, given, watts, setBy) => {
    const design = withSet((draft) => {
      item1(draft).runningW = given.item;
      Object.assign(stack1(draft), { chargeCurrentA: 90 }, 'stack' in given ? given.stack : {});
      if ('modules' in given) bank1(draft).modules.splice(given.modules);
      if ('type' in given) withInverter(draft, given.type);
    });
    const [proposal] = adviseCharger(design, SAMPLE_TYPES).proposals;
    expect(proposal?.parts[0]?.label).toContain(`to ${watts}`);
    expect(proposal?.notes[0]).toContain(setBy);
  });

  it.each([
    [
      'a battery that gets too cold',
      (d: Design) => void (d.site.equipmentLowestC = -12),
      'must not be charged below',
    ],
    ['a load that is too much by itself', (d: Design) => void (item1(d).runningW = 3500), 'shed some of it'],
    [
      'a load that is not known',
      (d: Design) => void Reflect.deleteProperty(item1(d), 'runningW'),
      'not known in full',
    ],
    ['no generator', (d: Design) => void (d.generators = []), 'no generator'],
  ])('says why there is none for %s', (_, edit, says) => {
    const advice = adviseCharger(withSet(edit), SAMPLE_TYPES);
    expect(advice.proposals).toEqual([]);
    expect(advice.notes.join(' ')).toContain(says);
  });
});
