import { magnitude, ZERO } from '../../network/complex.ts';
import { rehearsedLoad } from '../../figures/loads/rehearsedLoad.ts';
import { type Check, checkOf } from '../check.ts';
import { eachLine } from '../support/eachLine.ts';
import { lineSubject } from '../support/subjects.ts';
import { lineCapabilityStep, lineInputs, overrideNotes } from '../support/workings.ts';
import { clockWords } from '../../words/clock.ts';
import { formatQuantity } from '../../words/quantity.ts';

/** The load case of the rehearsals on each backed-up line: what 99 of 100 minutes stay within, chance included. */
export const loadRehearsed: Check<'load.rehearsed'> = checkOf({
  id: 'load.rehearsed',
  title: 'Rehearsed load on the line',
  family: 'load',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}} is asked for more than {{value}} in 1 of 100 minutes, most from {{from}} on, and can carry {{limit}}: over by {{margin}}. The expected peak is {{expected}}.',
    tight:
      '{{subject}} carries {{value}} of {{limit}} in 99 of 100 minutes, most from {{from}} on: {{margin}} left.',
    within: '{{subject}} carries {{value}} of {{limit}} in 99 of 100 minutes: {{margin}} left.',
    unknown: '{{subject}}: its rehearsed load cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachLine(
      loadRehearsed.id,
      context,
      'VA',
      ({ compiled, supply, line, index, board, capability, type }) => {
        // What a meter has measured is a load case of its own, and stands above this one.
        if (board.continuous.loadCase === 'measured by meter') return undefined;
        const { knownPart, missing } = rehearsedLoad(board, supply);
        const limit = capability.perLineVa[index] ?? 0;
        const expected = magnitude(board.continuous.knownPart[index] ?? ZERO);
        // Hours that nobody stated are asked for where energy is counted: without them there is no such load case.
        if (missing.length > 0) return undefined;
        const value = knownPart.lineVa[index] ?? 0;
        // A peak that is over already is told once, by the check of the expected peak.
        if (value > limit && expected > limit) return undefined;
        return {
          subject: lineSubject(compiled, line),
          value,
          limit,
          unit: 'VA',
          missing,
          data: {
            expected: formatQuantity(expected, 'VA'),
            from: clockWords(knownPart.worstFromH[index] ?? 0),
          },
          working: () => ({
            steps: [
              {
                symbol: 'S_99',
                meaning: 'apparent power that 99 of 100 minutes stay within',
                formula: 'S_99',
                symbols: [
                  { symbol: 'S_99', meaning: 'of the day of the line, with chance', value, unit: 'VA' },
                ],
                value,
                unit: 'VA',
              },
              lineCapabilityStep(context.installation, compiled, type, capability, index, 'VA'),
            ],
            inputs: lineInputs(board, line),
            source:
              'Each item over its hours as an average; days about it with a standard deviation of 15 %, quarter hours up to 30 % either way: the chance that the rehearsals of outages play with.',
            notes: overrideNotes(context.installation, 'currentSharingTolerance', 'tightMargin'),
          }),
        };
      },
    ),
});
