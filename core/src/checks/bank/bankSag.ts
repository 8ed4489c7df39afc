import { type Check, checkOf } from '../check.ts';
import { eachSharingBank, sharingWorking, worstOf } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';

/** Battery voltage at the inverter that sees the least of it while the largest start is made, above its low-voltage trip. */
export const bankSag: Check<'bank.sag'> = checkOf({
  id: 'bank.sag',
  title: 'Battery voltage during the largest start',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: while {{label}} starts, inverter {{inverter}} sees {{value}}; it trips at {{limit}}.',
    tight:
      '{{subject}}: while {{label}} starts, inverter {{inverter}} sees {{value}}; it trips at {{limit}}.',
    within:
      '{{subject}}: while {{label}} starts, inverter {{inverter}} sees {{value}}; it trips at {{limit}}.',
    unknown: '{{subject}}: the voltage during a start is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSharingBank(bankSag.id, context, 'V', 'surge', (one) => {
      const worst = worstOf(
        one.solved,
        (share, { label }) => share.taps.map((tap) => ({ tap, share, label })),
        ({ tap }) => (tap.currentA === 0 ? -Infinity : -tap.voltageV),
      );
      if (worst === undefined) return undefined;
      const { tap: lowest, share, label } = worst;
      return {
        subject: bankSubject(one.compiled),
        value: lowest.voltageV,
        limit: one.type.lowVoltageTripV,
        unit: 'V',
        bound: 'at-least',
        // A tenth of the trip voltage is more than a healthy bank has to spare: two volts in a hundred are called tight.
        tightMargin: SAG_TIGHT,
        data: {
          label,
          inverter: one.compiled.stack.units.findIndex((unit) => unit.id === lowest.unitId) + 1,
        },
        working: () => sharingWorking(share),
      };
    }),
});

/** Share of the trip voltage that is wanted above it. */
const SAG_TIGHT = 0.02;
