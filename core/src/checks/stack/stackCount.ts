import { capabilityWithout } from '../../figures/capability/capability.ts';
import { counted } from '../../words/quantity.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachKnown } from '../support/plain.ts';
import { stackSubject } from '../support/subjects.ts';
import { all } from '../../values/known.ts';

/** Paralleled units against the largest count of the type, on any line and in all. */
export const stackCount: Check<'stack.count'> = checkOf({
  id: 'stack.count',
  title: 'Number of units',
  family: 'stack',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: {{count}} {{where}}, but the type allows {{limit}}.',
    tight: '{{subject}}: {{count}} {{where}}, of {{limit}} allowed.',
    within: '{{subject}}: {{count}} {{where}}, of {{limit}} allowed.',
    unknown: '{{subject}}: the number of units cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      stackCount.id,
      context,
      '',
      stackSubject,
      (compiled) => all({ type: compiled.type, capability: capabilityWithout(compiled) }),
      ({ stack }, { type, capability }) => {
        const perLine = Math.max(0, ...capability.unitsOnLine);
        const lineIsWorse = perLine / type.maxPerLine >= stack.units.length / type.maxTotal;
        return {
          value: lineIsWorse ? perLine : stack.units.length,
          limit: lineIsWorse ? type.maxPerLine : type.maxTotal,
          graded: false,
          data: {
            count: counted(lineIsWorse ? perLine : stack.units.length, 'unit'),
            where: lineIsWorse ? 'on one line' : 'in all',
          },
          working: () => ({
            ...NO_WORKING,
            source: `Largest parallel count of ${type.name}.`,
            notes: [
              `On one line: ${perLine} of ${type.maxPerLine}. In all: ${stack.units.length} of ${type.maxTotal}.`,
            ],
          }),
        };
      },
    ),
});
