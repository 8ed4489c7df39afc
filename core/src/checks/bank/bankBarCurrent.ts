import { type Check, checkOf } from '../check.ts';
import { eachBankLimit } from '../support/bankDemand.ts';

/** Battery current at the lowest voltage against the rating of the combiner bar. */
export const bankBarCurrent: Check<'bank.bar-current'> = checkOf({
  id: 'bank.bar-current',
  title: 'Combiner bar',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: the combiner bar carries {{value}} {{needed}} at {{volts}}; it is rated {{limit}}: over by {{margin}}.',
    tight:
      '{{subject}}: the combiner bar carries {{value}} of {{limit}} {{needed}} at {{volts}}: {{margin}} left.',
    within:
      '{{subject}}: the combiner bar carries {{value}} of {{limit}} {{needed}} at {{volts}}: {{margin}} left.',
    unknown: '{{subject}}: the combiner bar cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachBankLimit(bankBarCurrent.id, context, 'minimum', 'bar', 'Rating of the combiner bar.'),
});
