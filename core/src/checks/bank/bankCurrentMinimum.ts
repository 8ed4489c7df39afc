import { lowestV } from '../../figures/bank/lowestV.ts';
import { type Check, checkOf } from '../check.ts';
import { dischargeCurrent } from '../support/dischargeCurrent.ts';

/**
 * Battery current at the expected peak and the lowest voltage at which the set still runs: the highest of the bank's
 * own minimum, the inverter's window and its low-voltage trip. Constant power draws the most current there.
 */
export const bankCurrentMinimum: Check<'bank.current-minimum'> = checkOf({
  id: 'bank.current-minimum',
  title: 'Battery current at minimum voltage',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}} is asked for {{value}} at {{volts}}; {{binding}} allow {{limit}}: over by {{margin}}.',
    tight: '{{subject}} gives {{value}} of {{limit}} at {{volts}} ({{binding}}): {{margin}} left.',
    within: '{{subject}} gives {{value}} of {{limit}} at {{volts}} ({{binding}}): {{margin}} left.',
    unknown: '{{subject}}: the current at minimum voltage cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    dischargeCurrent(bankCurrentMinimum.id, context, {
      meaning: 'lowest voltage at which the set runs',
      voltage: lowestV,
    }),
});
