import { shareBank } from '../compile/bankShare.ts';
import type { Check } from './check.ts';
import { eachSharingBank, sharingWorking, tooMuch } from './support/sharing.ts';
import { bankSubject } from './support/subjects.ts';

/** The module that comes nearest to what it may give for long. */
export const bankModuleCurrent: Check = {
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
      const share = shareBank(one.circuit, one.steadyW);
      const refused = tooMuch(one, share, one.steadyW);
      if (refused !== undefined || share.kind !== 'solved') return refused;
      const [hardest] = [...share.modules].sort(
        (a, b) =>
          b.currentA / b.module.type.continuousDischargeA - a.currentA / a.module.type.continuousDischargeA,
      );
      if (hardest === undefined) return undefined;
      return {
        subject: bankSubject(one.compiled),
        value: hardest.currentA,
        limit: hardest.module.type.continuousDischargeA,
        unit: 'A',
        data: { module: hardest.module.number },
        working: () => sharingWorking(share),
      };
    }),
};
