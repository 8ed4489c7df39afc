import type { OutputLoad } from '../../figures/loads/outputs.ts';
import type { Line } from '../../values/quantities.ts';
import type { CheckContext } from '../check.ts';
import type { Subject } from '../finding.ts';
import type { StackCase } from './eachLine.ts';

/** One line of one output of a set. */
export const outputSubject = (one: StackCase, output: OutputLoad, line: Line): Subject => ({
  kind: 'line',
  id: `${one.compiled.stack.id}/${output.id}/${line}`,
  about: [
    { kind: 'stack', id: one.compiled.stack.id },
    ...output.partitions.map(({ id }) => ({ kind: 'partition', id }) as const),
    { kind: 'supply-line', id: line },
  ],
  label: `${output.partitions.map(({ name }) => name).join(' and ')} ${line}`,
});

/** What the units on a line give through an output together: n · I / (1 + ε). */
export function outputLimit(
  context: CheckContext,
  one: StackCase,
  line: Line,
  unitA: number,
): { amperes: number; units: number; sharing: number } {
  const units = one.capability.unitsOnLine[one.lines.indexOf(line)] ?? 0;
  const sharing = units > 1 ? context.installation.defaults.currentSharingTolerance.value : 0;
  return { amperes: (units * unitA) / (1 + sharing), units, sharing };
}
