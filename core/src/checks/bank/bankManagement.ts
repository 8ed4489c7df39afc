import { type Check, checkOf } from '../check.ts';
import { eachBankLimit } from '../support/bankDemand.ts';

/** Battery current at the lowest voltage against what the battery management allows its group. In an open loop it allows nothing by itself, and nothing is assumed. */
export const bankManagement: Check<'bank.management'> = checkOf({
  id: 'bank.management',
  title: 'Limit of the battery management',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: the battery management is asked for {{value}} {{needed}} at {{volts}}; it allows {{limit}}: over by {{margin}}.',
    tight:
      '{{subject}}: the battery management is asked for {{value}} of {{limit}} {{needed}} at {{volts}}: {{margin}} left.',
    within:
      '{{subject}}: the battery management is asked for {{value}} of {{limit}} {{needed}} at {{volts}}: {{margin}} left.',
    unknown: '{{subject}}: the limit of the battery management cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachBankLimit(
      bankManagement.id,
      context,
      'minimum',
      'management',
      'Group limit of the battery type in a closed loop.',
    ),
});
