import { expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { baseDesign, forget, item1, stack1 } from '../testkit/designs.ts';
import { acceptanceOf, figuresToAccept } from './accepted.ts';
import { analyse } from './analyse.ts';
import { causesOf } from './causes.ts';
import type { CheckId } from './registry.ts';
import { procedureFor } from '../procedure/generate.ts';
import { overrideLead } from '../testkit/wired.ts';
import { verdictOf } from './verdict.ts';

/** A design with so many W on 5 kVA, in which what a check found at `acceptedW` was accepted. */
function acceptedAt(check: CheckId, accepted: (design: Design) => void, now: (design: Design) => void) {
  const before = baseDesign();
  accepted(before);
  const found = analyse(before, SAMPLE_TYPES).findings.filter((one) => one.check === check);
  const [first] = found;
  if (first === undefined || (first.state !== 'over' && first.state !== 'unknown'))
    throw new Error('There is something to accept.');
  const { kind, id } = first.subject;
  const design = baseDesign();
  now(design);
  design.accepted = [
    {
      id: 'a1',
      check,
      subject: { kind, id },
      state: first.state,
      ...figuresToAccept(found),
      reason: 'Runs ten minutes a day',
      by: 'Ana Prieto',
      at: '2026-01-01T10:00:00Z',
    },
  ];
  const { installation, findings } = analyse(design, SAMPLE_TYPES);
  const one = findings.find((finding) => finding.check === check);
  return { by: one && acceptanceOf(installation, one)?.by, installation, findings };
}
const load = (watts: number) => (design: Design) => void (item1(design).runningW = watts);

it.each([
  ['the same figures', 5500, 'Ana Prieto'],
  ['better ones', 5200, 'Ana Prieto'],
  ['worse ones', 5501, undefined],
])('an acceptance of 5500 W on 5000 VA with %s', (_, watts, by) =>
  expect(acceptedAt('load.continuous', load(5500), load(watts)).by).toBe(by),
);

it('one trouble in the place of another is not what was accepted', () => {
  const setTo = (hertz: 50 | 60, volts: number) => (design: Design) =>
    void Object.assign(stack1(design).units[0] ?? {}, { frequencyHz: hertz, outputV: volts });
  const wrongHertz = setTo(60, 230);
  expect(acceptedAt('stack.unit-types', wrongHertz, wrongHertz).by).toBe('Ana Prieto');
  expect(acceptedAt('stack.unit-types', wrongHertz, setTo(50, 208)).by).toBeUndefined();
});

it('of something not known it covers what was missing then, and no more', () => {
  const noHours = (design: Design): void => forget(item1(design), 'hoursPerDay');
  const noHoursNorDemand = (design: Design): void => {
    noHours(design);
    forget(design.site, 'targetAutonomyH');
  };
  expect(acceptedAt('bank.autonomy', noHours, noHours).by).toBe('Ana Prieto');
  expect(acceptedAt('bank.autonomy', noHoursNorDemand, noHours).by).toBe('Ana Prieto');
  expect(acceptedAt('bank.autonomy', noHours, noHoursNorDemand).by).toBeUndefined();
});

it('stands in the verdict as accepted, and last among the causes', () => {
  const { installation, findings } = acceptedAt('load.continuous', load(5500), load(5500));
  const causes = causesOf(installation, findings);
  expect(causes.at(-1)?.accepted).toBe(true);
  expect(verdictOf(installation, causes)).toContain('1 is accepted by name.');
});

it('limits and table values that the job changed stand in the verdict, and by name at the first gate', () => {
  const design = baseDesign();
  const spoken = (): string => {
    const { installation, findings } = analyse(design, SAMPLE_TYPES);
    return verdictOf(installation, causesOf(installation, findings));
  };
  expect(spoken()).not.toContain('rests on');
  design.defaults = [{ id: 'tightMargin', value: 0.2, reason: 'soft starters' }];
  overrideLead(design, 2.5, 30);
  expect(spoken()).toContain('1 planning limit changed for this job and 1 value of code tables overridden');
  const gate = procedureFor(design, SAMPLE_TYPES).steps[0];
  expect(gate?.instructions.join(' ')).toMatch(
    /Code table overridden by Robin \(as its maker states\).*: 30\./,
  );
});
