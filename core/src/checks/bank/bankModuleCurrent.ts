import { type Check, checkOf } from '../check.ts';
import { eachSharingBank, moduleWords, sharingWorking, worstOf } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';

/** The module that comes nearest to what it may give for long. */
export const bankModuleCurrent: Check<'bank.module-current'> = checkOf({
  id: 'bank.module-current',
  title: 'Hardest-working battery module',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: module {{module}} is asked for {{value}} and gives {{limit}}: over by {{margin}}.',
    tight: '{{subject}}: module {{module}} gives {{value}} of {{limit}}: {{margin}} left.',
    within: '{{subject}}: module {{module}} gives {{value}} of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: the current of each module is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSharingBank(bankModuleCurrent.id, context, 'A', 'steady', (one) => {
      const worst = worstOf(
        one.solved,
        (share, one) => share.modules.map((hardest) => ({ hardest, share, one })),
        ({ hardest }) => hardest.currentA / hardest.module.type.continuousDischargeA,
      );
      if (worst === undefined) return undefined;
      const { hardest, share } = worst;
      return {
        subject: bankSubject(one.compiled),
        value: hardest.currentA,
        limit: hardest.module.type.continuousDischargeA,
        unit: 'A',
        data: { module: moduleWords(hardest.module.number, worst.one) },
        working: () => sharingWorking(share),
      };
    }),
});
