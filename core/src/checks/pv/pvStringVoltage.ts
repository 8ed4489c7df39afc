import { knownString } from '../../figures/pv/strings.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachString } from '../support/strings.ts';
import { symbol } from '../support/workings.ts';

/** Open-circuit voltage of a string on the coldest morning against what the input stands. */
export const pvStringVoltage: Check<'pv.string-voltage'> = checkOf({
  id: 'pv.string-voltage',
  title: 'String voltage in the cold',
  family: 'pv',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{value}} open circuit at {{low}}; the input stands {{limit}}: over by {{margin}}. It would destroy the input.',
    tight: '{{subject}}: {{value}} open circuit at {{low}} of {{limit}}: {{margin}} left.',
    within: '{{subject}}: {{value}} open circuit at {{low}} of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: the string voltage in the cold is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachString(pvStringVoltage.id, context, 'V', (one) => {
      const given = knownString(one, context.installation.site);
      if (!given.known)
        return { value: undefined, limit: undefined, missing: given.missing, working: () => NO_WORKING };
      const { type, count, inputs, lowestC, volts } = given.value;
      return {
        value: volts.coldOpenV,
        limit: inputs.maxV,
        tightMargin: 0.03,
        data: { low: `${lowestC} °C` },
        working: () => ({
          steps: [
            {
              symbol: 'U_oc',
              meaning: 'open-circuit voltage of the string in the cold',
              formula: 'n · V_oc · (1 + β · (T - 25))',
              symbols: [
                symbol('n', 'modules in the string', count, '', ['arrays', one.array.id, 'modulesPerString']),
                symbol('V_oc', 'open-circuit voltage of one at 25 °C', type.vocV, 'V', [
                  'arrays',
                  one.array.id,
                  'moduleTypeId',
                ]),
                symbol('β', 'its change per kelvin', type.vocPerK, ''),
                symbol('T', 'record low', lowestC, '°C', ['site', 'lowestC']),
              ],
              value: volts.coldOpenV,
              unit: 'V',
            },
          ],
          inputs: [],
          source: 'Open-circuit voltage rises as cells get colder; at daybreak they are as cold as the air.',
          notes: ['Measure polarity and open-circuit voltage of each string before it is plugged.'],
        }),
      };
    }),
});
