import { expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { analyse } from '../../checks/analyse.ts';
import { analysisCauses } from '../../checks/causes.ts';
import type { Design } from '../../design/schema.ts';
import { baseDesign, heater } from '../../testkit/designs.ts';
import { analysisOf } from '../../testkit/mended.ts';
import { mendsOf } from './mendsOf.ts';
import { countsOf, triedOf } from './tried.ts';

/** A set that is asked for far more than it gives: load, starts, bank and hours are over at once, and are mended alike. */
function overloaded(): Design {
  const design = baseDesign();
  design.site.targetAutonomyH = 12;
  design.circuits = Array.from({ length: 6 }, (_, n) => ({
    id: `c${n}`,
    name: `Heater ${n}`,
    lines: ['L1'],
    partitionId: 'b',
    items: [heater(`i${n}`, { runningW: 1000 + 300 * n, hoursPerDay: 24, importance: 'could' })],
  }));
  return design;
}

it('what causes try of one design is the same whoever asked first, and alone', () => {
  const design = overloaded();
  const together = analyse(design, SAMPLE_TYPES);
  const causes = analysisCauses(together).filter(({ state }) => state === 'over');
  expect(causes.length).toBeGreaterThan(3);
  const forwards = causes.map((cause) => mendsOf(cause, together, SAMPLE_TYPES));
  expect(forwards.filter(({ length }) => length > 0).length).toBeGreaterThan(2);
  const other = analysisOf(design);
  const backwards = analysisCauses(other)
    .filter(({ state }) => state === 'over')
    .reverse()
    .map((cause) => mendsOf(cause, other, SAMPLE_TYPES))
    .reverse();
  expect(backwards).toEqual(forwards);
  const alone = causes.map(({ id }) => {
    const analysis = analysisOf(design);
    const cause = analysisCauses(analysis).find((one) => one.id === id);
    return cause === undefined ? [] : mendsOf(cause, analysis, SAMPLE_TYPES);
  });
  expect(alone).toEqual(forwards);
});

it('equal changes are worked out once, and changes that differ in one figure, one place or one catalogue are not taken for each other', () => {
  const analysis = analyse(overloaded(), SAMPLE_TYPES);
  const { design } = analysis;
  const onto = (at: number, partitionId: string): Design => ({
    ...design,
    circuits: design.circuits.map((one, n) => (n === at ? { ...one, partitionId } : one)),
  });
  const tried = (next: Design, catalogue = SAMPLE_TYPES) => triedOf(analysis, next, catalogue);
  expect(tried(onto(1, 'b'))).toBe(tried(onto(1, 'b')));
  const others = [
    onto(2, 'b'),
    onto(1, 'g'),
    { ...design, circuits: design.circuits.slice(1) },
    { ...design, circuits: design.circuits.slice(0, -1) },
    { ...design, name: 'Another' },
    design,
  ];
  for (const other of others) expect(tried(other)).not.toBe(tried(onto(1, 'b')));
  expect(tried(onto(1, 'b'), [...SAMPLE_TYPES])).not.toBe(tried(onto(1, 'b')));
  // What it comes to is what a whole analysis of it says.
  const fewer = { ...design, circuits: design.circuits.slice(0, 1) };
  expect(tried(fewer).after()?.counts).toEqual(countsOf(analysisOf(fewer)));
});
