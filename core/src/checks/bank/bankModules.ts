import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { bankOf } from '../support/bank.ts';
import { eachKnown } from '../support/plain.ts';
import { bankSubject } from '../support/subjects.ts';

/** Modules in parallel (per comms group) or in series against the largest count of the type. */
export const bankModules: Check<'bank.modules'> = checkOf({
  id: 'bank.modules',
  title: 'Number of battery modules',
  family: 'bank',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: {{value}} modules in {{joined}}, but the type allows {{limit}}.',
    tight: '{{subject}}: {{value}} modules in {{joined}}, of {{limit}} allowed.',
    within: '{{subject}}: {{value}} modules in {{joined}}, of {{limit}} allowed.',
    unknown: '{{subject}}: the number of modules cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(bankModules.id, context, '', bankSubject, bankOf, (_compiled, bank) => ({
      value: bank.moduleCount,
      limit: bank.type.maxModules,
      graded: false,
      data: { joined: bank.type.joining },
      working: () => ({ ...NO_WORKING, source: `Largest count of ${bank.type.name}.` }),
    })),
});
