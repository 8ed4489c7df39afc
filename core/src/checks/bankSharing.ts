import { shareBank } from '../compile/bankShare.ts';
import type { Check } from './check.ts';
import { eachSharingBank, sharingWorking, tooMuch } from './support/sharing.ts';
import { bankSubject } from './support/subjects.ts';

/** How far the hardest- or least-working module is from the mean, solved from leads, lugs and bars. */
export const bankSharing: Check = {
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
      const share = shareBank(one.circuit, one.steadyW);
      const refused = tooMuch(one, share, one.steadyW);
      if (refused !== undefined || share.kind !== 'solved') return refused;
      const { defaults } = context.installation;
      const [worst] = [...share.modules].sort((a, b) => Math.abs(b.share - 1) - Math.abs(a.share - 1));
      return {
        subject: bankSubject(one.compiled),
        value: share.worstDeparture,
        limit: defaults.shareLimit.value,
        unit: 'fraction',
        tightMargin: 1 - defaults.shareTight.value / defaults.shareLimit.value,
        data: { what: `the departure of module ${worst?.module.number ?? 1} from the mean` },
        working: () => sharingWorking(share),
      };
    }),
};
