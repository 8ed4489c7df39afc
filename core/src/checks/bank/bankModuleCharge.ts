import { chargeShareOf } from '../../figures/bank/chargeShare.ts';
import { type Check, checkOf } from '../check.ts';
import { eachKnown } from '../support/plain.ts';
import { SHARING_SOURCE, shareNotes } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';

/** What each module takes while all inverters charge at their settings, solved as discharging is, against what its type may take. */
export const bankModuleCharge: Check<'bank.module-charge'> = checkOf({
  id: 'bank.module-charge',
  title: 'Charging current of each module',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}}: module {{module}} takes {{value}} of the {{asked}} of charging; its type takes {{limit}}.',
    tight: '{{subject}}: module {{module}} takes {{value}} of {{limit}} while charging: {{margin}} left.',
    within: '{{subject}}: module {{module}} takes {{value}} of {{limit}} while charging.',
    unknown: '{{subject}}: what each module takes while charging is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      bankModuleCharge.id,
      context,
      'A',
      bankSubject,
      (compiled) => (typeof compiled.stack.bank === 'object' ? chargeShareOf(compiled) : undefined),
      (_, charge) => {
        if (charge === 'none' || charge.share.kind !== 'solved') return undefined;
        const { share, askedA } = charge;
        const [worst] = [...share.modules].sort(
          (a, b) => a.currentA / a.module.type.chargeA - b.currentA / b.module.type.chargeA,
        );
        if (worst === undefined) return undefined;
        return {
          value: Math.max(0, -worst.currentA),
          limit: worst.module.type.chargeA,
          // A setting exactly at the limit is what a designer aims for, so this is not graded by margin.
          graded: false,
          data: { module: String(worst.module.number), asked: `${Math.round(askedA * 10) / 10} A` },
          working: () => ({
            steps: [],
            inputs: [],
            source: SHARING_SOURCE,
            notes: shareNotes(share),
          }),
        };
      },
    ),
});
