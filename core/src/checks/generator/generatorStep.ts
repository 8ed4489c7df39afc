import { add, magnitude, ZERO } from '../../network/complex.ts';
import { type LoadStage, loadStages } from '../../figures/loads/loadStages.ts';
import { formatQuantity } from '../../words/quantity.ts';
import { type Check, judge } from '../check.ts';
import { eachGenerator } from '../support/generators.ts';
import { lineInputs, loadCaseWords, symbol } from '../support/workings.ts';

/** The order in which the load could be brought on, where one step is too much. */
function stageNotes(stages: readonly LoadStage[]): string[] {
  if (stages.length < 2) return [];
  return stages.map(
    (stage, index) =>
      `Stage ${index + 1}: ${stage.circuits.map((circuit) => circuit.name).join(', ')}: ${formatQuantity(stage.va, 'VA')}${stage.isTooLarge ? ', more than one step by itself' : ''}.`,
  );
}

/** The load that a generator takes at once at transfer, against the largest step its type accepts. */
export const generatorStep: Check<'generator.step'> = {
  id: 'generator.step',
  title: 'Load step on the generator',
  family: 'generator',
  modes: ['generator-port', 'transfer-switch'],
  sentences: {
    over: '{{subject}} takes {{value}} at once at transfer and accepts {{limit}}: over by {{margin}}. Bring the load on in stages.',
    tight: '{{subject}} takes {{value}} at once of {{limit}} it accepts: {{margin}} left.',
    within: '{{subject}} takes {{value}} at once of {{limit}} it accepts: {{margin}} left.',
    unknown: '{{subject}}: the load step cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachGenerator(
      generatorStep.id,
      context,
      'VA',
      ({ subject, generator, type, deratedVa, board, reached, supply }) => {
        const step = type.largestStep;
        // What a set reaches with fewer lines than the board has is a part of the load only.
        const power = reached.map((line) => board.continuous.knownPart[line] ?? ZERO).reduce(add, ZERO);

        return judge(generatorStep.id, context, {
          subject,
          value: magnitude(power),
          limit: step === undefined ? undefined : deratedVa * step,
          unit: 'VA',
          missing: [
            ...board.continuous.missing,
            ...(step === undefined ? [['types', type.id, 'largestStep']] : []),
          ],
          working: () => ({
            steps:
              step === undefined
                ? []
                : [
                    {
                      symbol: 'S_step',
                      meaning: 'largest step of the set at this site',
                      formula: 'S_site · s',
                      symbols: [
                        symbol('S_site', 'rating left at this altitude and heat', deratedVa, 'VA', [
                          'generators',
                          generator.id,
                          'typeId',
                        ]),
                        symbol('s', 'largest step of the type, as a share of its rating', step, ''),
                      ],
                      value: deratedVa * step,
                      unit: 'VA',
                    },
                  ],
            inputs: lineInputs(board, undefined),
            source: `The ${loadCaseWords(board)} is taken over at once; charging comes up slowly after it.`,
            notes:
              step === undefined
                ? []
                : stageNotes(loadStages(board.circuits, supply, reached, deratedVa * step)),
          }),
        });
      },
    ),
};
