import { type Check, checkOf } from '../check.ts';
import { eachBankLimit } from '../support/bankDemand.ts';

/** Battery current at the lowest voltage against what the leads of the inverters carry for long. */
export const bankLeadCurrent: Check<'bank.lead-current'> = checkOf({
  id: 'bank.lead-current',
  title: 'Battery leads of the inverters',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: the battery leads carry {{value}} {{needed}} at {{volts}}; together they may carry {{limit}}: over by {{margin}}.',
    tight:
      '{{subject}}: the battery leads carry {{value}} of {{limit}} {{needed}} at {{volts}}: {{margin}} left.',
    within:
      '{{subject}}: the battery leads carry {{value}} of {{limit}} {{needed}} at {{volts}}: {{margin}} left.',
    unknown: '{{subject}}: the battery leads cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachBankLimit(
      bankLeadCurrent.id,
      context,
      'minimum',
      'cable',
      'Tabulated capacity of the leads in the air around them, over the continuous factor of the code profile.',
    ),
});
