import { bankTypesOf } from '../../figures/bank/ofSet.ts';
import { type Check, NO_WORKING } from '../check.ts';
import { eachKnown } from '../support/plain.ts';
import { bankSubject } from '../support/subjects.ts';

/** Modules of different types on one bank: computed, and still a finding, because their makers did not plan for each other. */
export const bankMixedTypes: Check<'bank.mixed-types'> = {
  id: 'bank.mixed-types',
  title: 'One type of module on the bank',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}} has modules of {{value}} types on it: {{names}}.',
    tight: '{{subject}} has modules of one type.',
    within: '{{subject}} has modules of one type.',
    unknown: '{{subject}}: the types of its modules are not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      bankMixedTypes.id,
      context,
      '',
      bankSubject,
      (compiled) => (typeof compiled.stack.bank === 'object' ? bankTypesOf(compiled) : undefined),
      (_compiled, types) => ({
        value: types.length,
        limit: 1,
        graded: false,
        data: { names: types.map((type) => type.name).join(', ') },
        working: () => ({ ...NO_WORKING, source: 'Types of the modules that are fitted.' }),
      }),
    ),
};
