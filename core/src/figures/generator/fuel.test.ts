import { expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { baseDesign, forget, item1 } from '../../testkit/designs.ts';
import { fuelUse } from './fuel.ts';
import type { Design } from '../../design/schema.ts';
import { compile } from '../../installation/compile.ts';

it('0.5 L/h idle and 0.35 L/kWh at 1150 W in the mean: 0.9025 L/h, 21.66 L a day, and 20 L last 22.2 h', () => {
  const design = baseDesign();
  design.generators.push({ id: 'g', name: 'Set', typeId: 'petrol-4k-1ph', stackId: 's', fuelL: 20 });
  // A design is never changed once something was worked out for it: each time it is another one.
  const use = (): ReturnType<typeof fuelUse> => {
    const { generators, stacks } = compile(JSON.parse(JSON.stringify(design)) as Design, SAMPLE_TYPES);
    const [one] = generators;
    if (one === undefined) throw new Error('There is a set.');
    return fuelUse(one, stacks[0]);
  };
  const found = use();
  if (!found.known) throw new Error('All is known.');
  expect(found.value.litresPerHour).toBeCloseTo(0.9025, 9);
  expect(found.value.litresPerDay).toBeCloseTo(21.66, 9);
  expect(found.value.lastsH).toBeCloseTo(22.16, 2);
  forget(item1(design), 'hoursPerDay');
  expect(use()).toMatchObject({ known: false, missing: [['circuits', 'c1', 'items', 'i1', 'hoursPerDay']] });
});
