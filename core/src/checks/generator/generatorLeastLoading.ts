import { type Check, judge } from '../check.ts';
import { eachGenerator } from '../support/generators.ts';
import { symbol } from '../support/workings.ts';

/** A set that runs for long far below its rating does not burn clean (wet stacking): the average load against its least. */
export const generatorLeastLoading: Check<'generator.least-loading'> = {
  id: 'generator.least-loading',
  title: 'Generator loaded enough',
  family: 'generator',
  modes: ['generator-port', 'transfer-switch'],
  sentences: {
    over: '{{subject}} would run for long at {{value}}, below the {{limit}} it should have: charge from it while it runs, and stop it when the battery is full.',
    tight:
      '{{subject}} would run for long at {{value}}, below the {{limit}} it should have: charge from it while it runs, and stop it when the battery is full.',
    within: '{{subject}} runs at {{value}} in the mean; {{limit}} is the least it should have.',
    unknown: '{{subject}}: its mean load is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachGenerator(generatorLeastLoading.id, context, 'W', ({ subject, generator, deratedVa, board }) => {
      const least = context.installation.defaults.generatorLeast.value;
      const { averageW } = board;
      const limit = deratedVa * least;
      // Running light wears a set, it does not overload it.
      return judge(generatorLeastLoading.id, context, {
        subject,
        worst: 'tight',
        value: averageW.knownPart,
        limit,
        unit: 'W',
        bound: 'at-least',
        graded: false,
        missing: averageW.missing,
        working: () => ({
          steps: [
            {
              symbol: 'P_least',
              meaning: 'least load for long',
              formula: 'S_site · k',
              symbols: [
                symbol('S_site', 'rating left at this altitude and heat', deratedVa, 'VA', [
                  'generators',
                  generator.id,
                  'typeId',
                ]),
                symbol('k', 'least loading', least, ''),
              ],
              value: limit,
              unit: 'W',
            },
          ],
          inputs: [],
          source: 'Average load over a day without charging: what is left when the battery is full.',
          notes: [],
        }),
      });
    }),
};
