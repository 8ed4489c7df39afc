import { all, field } from '../../values/known.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { bankOf } from '../support/bank.ts';
import { eachKnown } from '../support/plain.ts';
import { bankSubject } from '../support/subjects.ts';

/** Where the battery stands must not get colder than its chemistry may be charged at. */
export const bankColdCharge: Check<'bank.cold-charge'> = checkOf({
  id: 'bank.cold-charge',
  title: 'Charging in the cold',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}}: it gets down to {{value}} where the battery stands, and it must not be charged below {{limit}}. Heat the place, move the battery or block charging.',
    tight: '{{subject}}: down to {{value}}; charging is allowed from {{limit}}.',
    within: '{{subject}}: down to {{value}}; charging is allowed from {{limit}}.',
    unknown: '{{subject}}: charging in the cold cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      bankColdCharge.id,
      context,
      '°C',
      bankSubject,
      (compiled) => {
        const bank = bankOf(compiled);
        const coldest = field(context.installation.site.equipmentLowestC, 'site', 'equipmentLowestC');
        return bank === undefined ? undefined : all({ bank, coldest });
      },
      (_compiled, { bank, coldest }) => ({
        value: coldest,
        limit: bank.type.chargeMinC,
        bound: 'at-least',
        graded: false,
        working: () => ({
          ...NO_WORKING,
          source: `Lowest charging temperature of ${bank.type.name}.`,
          inputs: [
            {
              label: 'Coldest air at the equipment',
              path: ['site', 'equipmentLowestC'],
              value: coldest,
              unit: '°C',
            },
          ],
        }),
      }),
    ),
});
