import { expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { compile } from '../installation/compile.ts';
import { variantOf } from '../testkit/bonding.ts';
import { baseDesign, stack1 } from '../testkit/designs.ts';
import { enableLines } from './enableLines.ts';

it.each([
  ['none', 'yes', undefined],
  ['closed-runs', undefined, 'Look at the enable input'],
  ['closed-runs', 'yes', 'Close the enable switch last'],
  ['closed-runs', 'none', 'The enable input is bridged'],
  ['open-runs', undefined, 'Look at the enable input'],
  ['open-runs', 'yes', 'Open the enable switch last'],
  ['open-runs', 'none', 'Nothing is joined to the enable input'],
] as const)('an input of which %s, its switch fitted: %s', (enableInput, fitted, says) => {
  const design = baseDesign();
  design.types.push(variantOf('inverter', 'hybrid-5k-1ph', { id: 'own', enableInput }));
  stack1(design).inverterTypeId = 'own';
  if (fitted !== undefined)
    design.devices.push({ id: 'e', role: 'enable-switch', stackId: stack1(design).id, fitted });
  const installation = compile(design, SAMPLE_TYPES);
  const [stack] = installation.stacks;
  const lines = stack === undefined ? [] : enableLines(installation, stack);
  expect(lines.length).toBe(says === undefined ? 0 : 1);
  expect(lines[0] ?? '').toContain(says ?? '');
});
