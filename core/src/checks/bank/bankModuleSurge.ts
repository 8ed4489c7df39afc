import { dischargeLimitA } from '../../figures/bank/bank.ts';
import { formatNumber } from '../../words/quantity.ts';
import { type Check, checkOf } from '../check.ts';
import { eachSharingBank, moduleWords, sharingWorking, worstOf } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';

/** The module that comes nearest to its peak while the largest start is made. */
export const bankModuleSurge: Check<'bank.module-surge'> = checkOf({
  id: 'bank.module-surge',
  title: 'Battery module during the largest start',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: while {{label}} starts, module {{module}} is asked for {{value}} and gives {{limit}} for {{needed}}: over by {{margin}}.',
    tight:
      '{{subject}}: while {{label}} starts, module {{module}} gives {{value}} of {{limit}}: {{margin}} left.',
    within:
      '{{subject}}: while {{label}} starts, module {{module}} gives {{value}} of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: module currents during a start are not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSharingBank(bankModuleSurge.id, context, 'A', 'surge', (one) => {
      const worst = worstOf(
        one.solved,
        (share, one) =>
          share.modules.map((hardest) => ({
            hardest,
            share,
            one,
            limitA: dischargeLimitA(hardest.module.type, one.durationS),
          })),
        ({ hardest, limitA }) => hardest.currentA / limitA,
      );
      if (worst === undefined) return undefined;
      const { hardest, share, one: moment, limitA } = worst;
      const { label, durationS } = moment;
      return {
        subject: bankSubject(one.compiled),
        value: hardest.currentA,
        limit: limitA,
        unit: 'A',
        data: {
          module: moduleWords(hardest.module.number, moment),
          label,
          needed: `${formatNumber(durationS)} s`,
        },
        working: () => sharingWorking(share),
      };
    }),
});
