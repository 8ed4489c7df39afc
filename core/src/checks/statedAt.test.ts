import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { baseDesign, bank1, stack1 } from '../testkit/designs.ts';
import { SOUND, soundDesign } from '../testkit/sound.ts';
import { pageOf } from '../wire/stages.ts';
import { describePlace } from '../words/places.ts';
import { analyse } from './analyse.ts';
import { leadsToField, statedAt } from './statedAt.ts';
import { workingOf } from './workingOf.ts';

const addresses = (path: readonly (string | number)[]): string => path.join('/');

describe('a finding', () => {
  it.each(SOUND.map((spec) => [spec.name, spec] as const))(
    'of %s leads to a field, by its working or by what it is about',
    (_name, spec) => {
      const { design, installation, findings } = analyse(soundDesign(spec), SAMPLE_TYPES);
      for (const finding of findings) {
        if (leadsToField(workingOf(finding, installation)) || finding.missing.length > 0) continue;
        const places = statedAt(finding, installation);
        expect(places.length, `${finding.check}: ${finding.subject.label}`).toBeGreaterThan(0);
        for (const { path, label } of places) {
          expect(pageOf(path)).not.toBe('');
          expect(label ?? describePlace(design, path)).not.toMatch(/undefined|[a-z][A-Z]/);
        }
      }
    },
  );

  it('about uneven leads leads to the leads, and one about addresses to the modules', () => {
    const design = baseDesign();
    stack1(design).arrangement = 'parallel-single-phase';
    stack1(design).units.push({ id: 'u2', firmware: '1', barPlace: 2, batteryLead: { lengthM: 3 } });
    bank1(design).modules.forEach((module) => (module.address = 1));
    const { installation, findings } = analyse(design, SAMPLE_TYPES);
    const at = (check: string): string[] =>
      findings
        .filter((one) => one.check === check)
        .slice(0, 1)
        .flatMap((one) => statedAt(one, installation).map(({ path }) => addresses(path)));
    expect(at('bank.inverter-leads')).toEqual(['stacks/s/bank/inverterLead/lengthM']);
    expect(at('bank.addresses')).toEqual(['stacks/s/bank/modules']);
  });
});
