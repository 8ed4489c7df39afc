import { describe, expect, it } from 'vitest';
import { analyse } from '../checks/analyse.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { applyEdits } from '../design/edits.ts';
import { readDesign } from '../design/read.ts';
import type { Design } from '../design/schema.ts';
import { baseDesign, deepFreeze, item1 } from '../testkit/designs.ts';
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

  it('with 1000 var on the line: √(3200² − 1000²) − 2300 = 739.7, down to 700 W', () => {
    const design = withSet((draft) => {
      const item = item1(draft);
      item.powerFactor = 2300 / Math.hypot(2300, 1000);
    });
    expect(adviseCharger(design, SAMPLE_TYPES).proposals[0]?.parts[0]?.label).toBe(
      'Charging of each unit: 2 kW to 700 W',
    );
  });

  it.each([
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
