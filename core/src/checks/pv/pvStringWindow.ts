import { knownString } from '../../figures/pv/strings.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachString } from '../support/strings.ts';
import { symbol } from '../support/workings.ts';

/** Operating voltage of a string on the hottest day against the lower end of the tracking window; its upper end in the cold. */
export const pvStringWindow: Check<'pv.string-window'> = checkOf({
  id: 'pv.string-window',
  title: 'String inside the tracking window',
  family: 'pv',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{value}} {{when}}; the tracking window ends at {{limit}}. Power is lost there.',
    tight: '{{subject}}: {{value}} {{when}}, tracking window {{window}}.',
    within: '{{subject}}: {{value}} {{when}}, tracking window {{window}}: {{margin}} left.',
    unknown: '{{subject}}: the string voltage in the heat is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachString(pvStringWindow.id, context, 'V', (one) => {
      const given = knownString(one, context.installation.site);
      if (!given.known)
        return { value: undefined, limit: undefined, missing: given.missing, working: () => NO_WORKING };
      const { type, count, inputs, lowestC, volts } = given.value;
      const low = { value: volts.hotWorkV, limit: inputs.mpptMinV, bound: 'at-least' as const };
      // Above the window in the cold some power is lost on clear mornings; below it in the heat the string may not work at all.
      const high = {
        value: volts.coldWorkV,
        limit: inputs.mpptMaxV,
        bound: 'at-most' as const,
        worst: 'tight' as const,
      };
      const isLow = low.value < low.limit || low.value / low.limit - 1 <= 1 - high.value / high.limit;
      const cellC = isLow ? volts.hotCellC : lowestC;
      return {
        ...(isLow ? low : high),
        tightMargin: 0.03,
        data: {
          when: `working with cells at ${cellC} °C`,
          window: `${inputs.mpptMinV} to ${inputs.mpptMaxV} V`,
        },
        working: () => ({
          steps: [
            {
              symbol: 'U_mp',
              meaning: 'operating voltage of the string',
              formula: 'n · V_mp · (1 + γ · (T - 25))',
              symbols: [
                symbol('n', 'modules in the string', count, '', ['arrays', one.array.id, 'modulesPerString']),
                symbol('V_mp', 'operating voltage of one at 25 °C', type.vmpV, 'V', [
                  'arrays',
                  one.array.id,
                  'moduleTypeId',
                ]),
                symbol('γ', 'its change per kelvin', type.vmpPerK, ''),
                symbol('T', 'cell temperature', cellC, '°C', ['site', isLow ? 'highestC' : 'lowestC']),
              ],
              value: isLow ? volts.hotWorkV : volts.coldWorkV,
              unit: 'V',
            },
          ],
          inputs: [],
          source: 'Operating voltage falls as cells get hotter; in full sun they run hotter than the air.',
          notes: [
            `Working ${volts.hotWorkV.toFixed(1)} V with cells at ${volts.hotCellC} °C, ${volts.coldWorkV.toFixed(1)} V at ${lowestC} °C.`,
          ],
        }),
      };
    }),
});
