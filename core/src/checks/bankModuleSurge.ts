import { shareBank } from '../compile/bankShare.ts';
import { formatNumber } from '../words/quantity.ts';
import type { Check } from './check.ts';
import { eachSharingBank, sharingWorking, tooMuch } from './support/sharing.ts';
import { bankSubject } from './support/subjects.ts';

/** The module that comes nearest to its peak while the largest start is made. */
export const bankModuleSurge: Check = {
  id: 'bank.module-surge',
  title: 'Battery module during the largest start',
  family: 'bank',
  modes: ['island'],
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
      const share = shareBank(one.circuit, one.surgeW);
      const needed = `${formatNumber(one.surgeS)} s`;
      const refused = tooMuch(one, share, one.surgeW);
      if (refused !== undefined) return { ...refused, data: { ...refused.data, needed } };
      if (share.kind !== 'solved') return undefined;
      const limitOf = (type: (typeof share.modules)[number]['module']['type']): number =>
        one.surgeS <= type.peakS ? type.peakDischargeA : type.continuousDischargeA;
      const [hardest] = [...share.modules].sort(
        (a, b) => b.currentA / limitOf(b.module.type) - a.currentA / limitOf(a.module.type),
      );
      if (hardest === undefined) return undefined;
      return {
        subject: bankSubject(one.compiled),
        value: hardest.currentA,
        limit: limitOf(hardest.module.type),
        unit: 'A',
        data: { module: hardest.module.number, label: one.surgeLabel, needed },
        working: () => sharingWorking(share),
      };
    }),
};
