import { magnitude, ZERO } from '../../network/complex.ts';
import { type Check, checkOf } from '../check.ts';
import { eachLine } from '../support/eachLine.ts';
import { lineSubject } from '../support/subjects.ts';
import {
  apparentPowerStep,
  lineCapabilityStep,
  lineInputs,
  loadCaseNotes,
  loadCaseWords,
  overrideNotes,
} from '../support/workings.ts';
import { formatQuantity } from '../../words/quantity.ts';

/** Expected peak of each backed-up line against what the inverters on it can carry without limit of time. */
export const loadContinuous: Check<'load.continuous'> = checkOf({
  id: 'load.continuous',
  title: 'Continuous load on the line',
  family: 'load',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}} is asked for {{value}} at the {{loadCase}} and can carry {{limit}}: over by {{margin}}.',
    tight: '{{subject}} carries {{value}} of {{limit}} at the {{loadCase}}: {{margin}} left.',
    within: '{{subject}} carries {{value}} of {{limit}} at the {{loadCase}}: {{margin}} left.',
    unknown: '{{subject}}: the load is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachLine(loadContinuous.id, context, 'VA', ({ compiled, line, index, board, capability, type }) => {
      const expected = board.continuous.knownPart[index] ?? ZERO;
      const connected = board.connected.knownPart[index] ?? ZERO;
      return {
        subject: lineSubject(compiled, line),
        value: magnitude(expected),
        limit: capability.perLineVa[index] ?? 0,
        unit: 'VA',
        missing: board.continuous.missing,
        data: { connected: formatQuantity(magnitude(connected), 'VA'), loadCase: loadCaseWords(board) },
        working: () => ({
          steps: [
            apparentPowerStep('S_load', `${loadCaseWords(board)} on the line`, expected),
            lineCapabilityStep(context.installation, compiled, type, capability, index, 'VA'),
          ],
          inputs: lineInputs(board, line),
          source:
            'Phasor sum of running VA times demand factor; capacity of paralleled units with their sharing tolerance.',
          notes: [
            ...loadCaseNotes(board, index),
            `Connected load (everything on at once): ${formatQuantity(magnitude(connected), 'VA')}.`,
            ...overrideNotes(context.installation, 'currentSharingTolerance', 'tightMargin'),
          ],
        }),
      };
    }),
});
