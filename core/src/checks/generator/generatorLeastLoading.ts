import { reachedAverageW } from '../../figures/generator/reached.ts';
import { type Check, judge, checkOf } from '../check.ts';
import { eachGenerator } from '../support/generators.ts';
import { symbol } from '../support/workings.ts';

/** A set that runs for long far below its rating does not burn clean (wet stacking): the average load against its least. */
export const generatorLeastLoading: Check<'generator.least-loading'> = checkOf({
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
    eachGenerator(
      generatorLeastLoading.id,
      context,
      'W',
      ({ subject, generator, rating, board, reached }) => {
        const least = context.installation.defaults.generatorLeast.value;
        const averageW = reachedAverageW(board, reached);
        const { engineW } = rating;
        const limit = engineW.known ? engineW.value * least : undefined;
        // Running light wears a set, it does not overload it.
        return judge(generatorLeastLoading.id, context, {
          subject,
          worst: 'tight',
          value: averageW.knownPart,
          limit,
          unit: 'W',
          bound: 'at-least',
          graded: false,
          missing: [...averageW.missing, ...(engineW.known ? [] : engineW.missing)],
          working: () => ({
            steps:
              limit === undefined || !engineW.known
                ? []
                : [
                    {
                      symbol: 'P_least',
                      meaning: 'least load for long',
                      formula: 'P_site · k',
                      symbols: [
                        symbol(
                          'P_site',
                          'rated VA times power factor, left at this site',
                          engineW.value,
                          'W',
                          ['generators', generator.id, 'typeId'],
                        ),
                        symbol('k', 'least loading', least, ''),
                      ],
                      value: limit,
                      unit: 'W',
                    },
                  ],
            inputs: [],
            source:
              'Average load over a day on the lines it reaches, without charging: what is left when the battery is full.',
            notes: [],
          }),
        });
      },
    ),
});
