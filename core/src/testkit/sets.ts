import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { bankCircuitOf } from '../figures/bank/ofSet.ts';
import { compile } from '../installation/compile.ts';
import type { CompiledStack } from '../installation/installation.ts';

/** The first set of a design, laid with the sample types. */
export function setOf(design: Design): CompiledStack {
  const [compiled] = compile(design, SAMPLE_TYPES).stacks;
  if (compiled === undefined) throw new Error('There is a stack.');
  return compiled;
}

/** Its bank as a network. */
export const bankOfDesign = (design: Design): ReturnType<typeof bankCircuitOf> =>
  bankCircuitOf(setOf(design));
