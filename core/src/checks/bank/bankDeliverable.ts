import { bankCircuitOf } from '../../figures/bank/ofSet.ts';
import { formatNumber } from '../../words/quantity.ts';
import { type Check, type Measurement, NO_WORKING, checkOf } from '../check.ts';
import { eachStack, type StackCase } from '../support/eachLine.ts';
import { type BankLoadCase, SHARING_SOURCE, solvedFor } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';

/** The load case in which the bank falls short by most, if there is one. */
function shortfall(one: StackCase, load: BankLoadCase): Measurement<'when'> | undefined {
  const circuit = bankCircuitOf(one.compiled);
  if (circuit.known && typeof circuit.value === 'string') return undefined;
  const missing = load === 'steady' ? one.board.continuous.missing : one.board.starts.missing;
  const solved = solvedFor[load](one);
  if (missing.length > 0 || !solved.known) return undefined;
  for (const { share, askedW, label, durationS } of solved.value)
    if (share.kind === 'too-much')
      return {
        subject: bankSubject(one.compiled),
        value: askedW,
        limit: share.deliverableW,
        unit: 'W',
        data: {
          when: load === 'steady' ? 'the continuous load' : `${label} for ${formatNumber(durationS)} s`,
        },
        working: () => ({
          ...NO_WORKING,
          source: SHARING_SOURCE,
          notes: ['Past the largest power a bank can give, more current only brings less voltage.'],
        }),
      };
  return undefined;
}

/** Power that a bank cannot give at all, whatever flows: past its largest, more current only brings less voltage. */
export const bankDeliverable: Check<'bank.deliverable'> = checkOf({
  id: 'bank.deliverable',
  title: 'Power the bank can give',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}} is asked for {{value}} of direct current at {{when}} and can give {{limit}} at most.',
    tight: '{{subject}} is asked for {{value}} at {{when}} of {{limit}} it can give.',
    within: '{{subject}} can give what is asked.',
    unknown: '{{subject}}: what it can give is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(bankDeliverable.id, context, 'W', (one) => [
      shortfall(one, 'steady') ?? shortfall(one, 'surge'),
    ]),
});
