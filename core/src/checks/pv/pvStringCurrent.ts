import { all } from '../../values/known.ts';
import { allStrings, type StringsAt } from '../../figures/pv/strings.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachString } from '../support/strings.ts';
import { symbol } from '../support/workings.ts';

/** Places of different arrays may have one and the same id. */
const keyOf = ({ array, place }: StringsAt): string => `${array.id}/${place.id}`;

/** Short-circuit current of everything on an input, with the allowance for strong sun, against what the input stands. */
export const pvStringCurrent: Check<'pv.string-current'> = checkOf({
  id: 'pv.string-current',
  title: 'String current',
  family: 'pv',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{value}} of short-circuit current; the input stands {{limit}}: over by {{margin}}.',
    tight: '{{subject}}: {{value}} of short-circuit current of {{limit}}: {{margin}} left.',
    within: '{{subject}}: {{value}} of short-circuit current of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: the string current is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachString(pvStringCurrent.id, context, 'A', (one) => {
      const alike = allStrings(context.installation).filter(
        ({ place }) =>
          place.stackId === one.place.stackId &&
          place.unitId === one.place.unitId &&
          place.input === one.place.input,
      );
      const types = all(Object.fromEntries(alike.map((other) => [keyOf(other), other.moduleType])));
      const given = all({ types, inputs: one.inputs, type: one.moduleType });
      if (!given.known)
        return { value: undefined, limit: undefined, missing: given.missing, working: () => NO_WORKING };
      const { inputs } = given.value;
      const factor = context.installation.defaults.pvCurrentFactor.value;
      const sumA = alike.reduce(
        (sum, other) => sum + (given.value.types[keyOf(other)]?.iscA ?? 0) * other.place.strings,
        0,
      );
      return {
        value: sumA * factor,
        limit: inputs.maxIscA ?? inputs.maxA,
        tightMargin: 0,
        working: () => ({
          steps: [
            {
              symbol: 'I_sc',
              meaning: 'short-circuit current on the input in strong sun',
              formula: 'ΣI · k',
              symbols: [
                symbol('ΣI', 'short-circuit current of all strings on this input', sumA, 'A', [
                  'arrays',
                  one.array.id,
                  'places',
                ]),
                symbol('k', 'allowance for strong sun', factor, ''),
              ],
              value: sumA * factor,
              unit: 'A',
            },
          ],
          inputs: [],
          source:
            inputs.maxIscA === undefined
              ? 'The type states no short-circuit limit: its operating limit is used.'
              : 'Short-circuit limit of the input.',
          notes: alike.map(
            (other) =>
              `${other.label}: ${other.place.strings} × ${given.value.types[keyOf(other)]?.iscA ?? 0} A.`,
          ),
        }),
      };
    }),
});
