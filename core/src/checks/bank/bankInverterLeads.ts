import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import { eachSharingBank } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';

/** Leads from the inverters to the bank must be alike, or one inverter works harder than the others. */
export const bankInverterLeads: Check<'bank.inverter-leads'> = checkOf({
  id: 'bank.inverter-leads',
  title: 'Battery leads of the inverters alike',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}}: the battery leads of the inverters differ by {{value}}; {{limit}} is allowed.',
    tight: '{{subject}}: the battery leads of the inverters differ by {{value}} of {{limit}} allowed.',
    within: '{{subject}}: the battery leads of the inverters differ by {{value}} of {{limit}} allowed.',
    unknown: '{{subject}}: the battery leads of the inverters are not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSharingBank(bankInverterLeads.id, context, 'fraction', 'steady', ({ circuit, compiled }) => {
      // Leads to banks of their own need not be alike.
      if (circuit.taps.length < 2 || isOwnBank(compiled.stack)) return undefined;
      const ohms = circuit.taps.map((tap) => tap.leadOhm);
      const least = Math.min(...ohms);
      const most = Math.max(...ohms);
      const { defaults } = context.installation;
      return {
        subject: bankSubject(compiled),
        value: least > 0 ? most / least - 1 : most === 0 ? 0 : Infinity,
        limit: defaults.leadSpreadLimit.value,
        unit: 'fraction',
        tightMargin: 1 - defaults.leadSpreadTight.value / defaults.leadSpreadLimit.value,
        working: () => ({
          ...NO_WORKING,
          source:
            'Largest over smallest resistance of the leads, both poles with lugs and breaker, less one.',
          notes: circuit.taps.map(
            (tap, index) => `Inverter ${index + 1}: ${(tap.leadOhm * 1000).toFixed(2)} mΩ.`,
          ),
        }),
      };
    }),
});
