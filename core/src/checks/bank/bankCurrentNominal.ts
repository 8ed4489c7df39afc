import { type Check, checkOf } from '../check.ts';
import { dischargeCurrent } from '../support/dischargeCurrent.ts';

/** Battery current at the expected peak and nominal voltage. */
export const bankCurrentNominal: Check<'bank.current-nominal'> = checkOf({
  id: 'bank.current-nominal',
  title: 'Battery current at nominal voltage',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}} is asked for {{value}} at {{volts}}; {{binding}} allow {{limit}}: over by {{margin}}.',
    tight: '{{subject}} gives {{value}} of {{limit}} at {{volts}} ({{binding}}): {{margin}} left.',
    within: '{{subject}} gives {{value}} of {{limit}} at {{volts}} ({{binding}}): {{margin}} left.',
    unknown: '{{subject}}: the current at nominal voltage cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    dischargeCurrent(bankCurrentNominal.id, context, {
      meaning: 'nominal bank voltage',
      voltage: (_one, bank) => bank.nominalV,
    }),
});
