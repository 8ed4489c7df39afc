import { type Check, checkOf } from '../check.ts';
import { eachSharingBank, moduleWords, sharingWorking, worstOf } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';

/** How far the hardest- or least-working module is from the mean, solved from leads, lugs and bars. */
export const bankSharing: Check<'bank.sharing'> = checkOf({
  id: 'bank.sharing',
  title: 'Battery modules share evenly',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: {{what}} comes to {{value}} where {{limit}} is allowed.',
    tight: '{{subject}}: {{what}} comes to {{value}} of {{limit}} allowed.',
    within: '{{subject}}: {{what}} comes to {{value}} of {{limit}} allowed.',
    unknown: '{{subject}}: how the modules share is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSharingBank(bankSharing.id, context, 'fraction', 'steady', (one) => {
      const worst = worstOf(
        one.solved,
        (share, one) => share.modules.map((module) => ({ module, share, one })),
        ({ module }) => (module.share === 0 ? 0 : Math.abs(module.share - 1)),
      );
      if (worst === undefined) return undefined;
      const { share, module } = worst;
      const { defaults } = context.installation;
      return {
        subject: bankSubject(one.compiled),
        value: share.worstDeparture,
        limit: defaults.shareLimit.value,
        unit: 'fraction',
        tightMargin: 1 - defaults.shareTight.value / defaults.shareLimit.value,
        data: {
          what: `the departure of module ${moduleWords(module.module.number, worst.one)} from the mean`,
        },
        working: () => sharingWorking(share),
      };
    }),
});
