import { ZERO } from '../../network/complex.ts';
import { type Check, checkOf } from '../check.ts';
import { eachLine } from '../support/eachLine.ts';
import { lineSubject } from '../support/subjects.ts';
import { lineCapabilityStep, lineInputs, overrideNotes } from '../support/workings.ts';

/** Real power of each backed-up line against the watt rating, which some inverters set below their VA rating. */
export const loadPower: Check<'load.power'> = checkOf({
  id: 'load.power',
  title: 'Real power on the line',
  family: 'load',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}} is asked for {{value}} and its inverters give {{limit}}: over by {{margin}}.',
    tight: '{{subject}} takes {{value}} of {{limit}}: {{margin}} left.',
    within: '{{subject}} takes {{value}} of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: the real power is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachLine(loadPower.id, context, 'W', ({ compiled, line, index, board, capability, type }) => {
      const expected = board.continuous.knownPart[index] ?? ZERO;
      return {
        subject: lineSubject(compiled, line),
        value: expected.re,
        limit: capability.perLineW[index] ?? 0,
        unit: 'W',
        missing: board.continuous.missing,
        working: () => ({
          steps: [lineCapabilityStep(context.installation, compiled, type, capability, index, 'W')],
          inputs: lineInputs(board, line),
          source: 'Sum of running W times demand factor on the line.',
          notes: overrideNotes(context.installation, 'currentSharingTolerance', 'tightMargin'),
        }),
      };
    }),
});
