import type { Check } from '../check.ts';
import { eachBankLimit } from '../support/bankDemand.ts';

/** Battery current during the largest start against what the time-current curve of the device holds for that long. */
export const bankBreakerSurge: Check<'bank.breaker-surge'> = {
  id: 'bank.breaker-surge',
  title: 'Battery breaker during the largest start',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: while {{label}} starts, the battery breaker carries {{value}} {{needed}} at {{volts}}; it holds {{limit}}: over by {{margin}}.',
    tight:
      '{{subject}}: while {{label}} starts, the battery breaker carries {{value}} of {{limit}} {{needed}} at {{volts}}: {{margin}} left.',
    within:
      '{{subject}}: while {{label}} starts, the battery breaker carries {{value}} of {{limit}} {{needed}} at {{volts}}: {{margin}} left.',
    unknown: '{{subject}}: the breaker during a start cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachBankLimit(
      bankBreakerSurge.id,
      context,
      'surge',
      'breaker',
      'Rating of the device times the largest multiple that it holds for the length of the start.',
    ),
};
