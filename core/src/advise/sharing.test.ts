import { describe, expect, it } from 'vitest';
import { analyse } from '../checks/analyse.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { applyEdits } from '../design/applyEdits.ts';
import { readDesign } from '../design/read.ts';
import { bank1, baseDesign, deepFreeze } from '../testkit/designs.ts';
import { sharingFixes } from './sharing.ts';

describe('ways to share more evenly', () => {
  const draft = baseDesign();
  Object.assign(bank1(draft), { joining: 'chain-same-end', lead: { lengthM: 2, areaMm2: 25 } });
  const design = deepFreeze(draft);
  const fixes = sharingFixes(design, SAMPLE_TYPES, 's');

  it('offers what fits this bank, best first, and each is a design with the effect it promises', () => {
    expect(fixes.map((fix) => fix.id)).toEqual(['bars', 'diagonal', 'next-size']);
    for (const fix of fixes) {
      expect(fix.after ?? 1).toBeLessThan(fix.before ?? 0);
      const applied = applyEdits(design, fix.edits);
      const read = applied.ok ? readDesign(applied.value, SAMPLE_TYPES) : applied;
      if (!read.ok) throw new Error(read.problems[0]?.message);
      const found = analyse(read.value, SAMPLE_TYPES).findings.find(
        (one) => one.check === 'bank.sharing' && one.mode === 'island',
      );
      expect(found?.value).toBeCloseTo(fix.after ?? 0, 12);
    }
  });

  it('cuts unequal leads to the longest', () => {
    const uneven = baseDesign();
    const bank = bank1(uneven);
    bank.joining = 'bars-given';
    bank.modules.forEach((module, index) => (module.lead = { lengthM: 1 + index, areaMm2: 35 }));
    const [best] = sharingFixes(uneven, SAMPLE_TYPES, 's');
    expect(best).toMatchObject({ id: 'equal-leads', label: 'Cut all module leads to the longest, 4 m' });
    expect(best?.after).toBeLessThan(0.02);
  });

  it('has nothing to say of a bank that is not there', () =>
    expect(sharingFixes({ ...design, stacks: [] }, SAMPLE_TYPES, 's')).toEqual([]));
});
