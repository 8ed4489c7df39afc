import { magnitude, ZERO } from '../../network/complex.ts';
import { type LoadStage, loadStages } from '../../figures/loads/loadStages.ts';
import { known, type Known } from '../../values/known.ts';
import { formatQuantity } from '../../words/quantity.ts';
import { type Check, type CheckContext, judge, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { eachGenerator, engineSubject, type GeneratorCase } from '../support/generators.ts';
import { lineInputs, loadCaseWords, symbol } from '../support/workings.ts';

/** The order in which the load could be brought on, where one step is too much. */
function stageNotes(stages: readonly LoadStage[]): string[] {
  if (stages.length < 2) return [];
  return stages.map(
    (stage, index) =>
      `Stage ${index + 1}: ${stage.circuits.map((circuit) => circuit.name).join(', ')}: ${formatQuantity(stage.watts, 'W')}${stage.isTooLarge ? ', more than one step by itself' : ''}.`,
  );
}

interface Step {
  readonly subject: Subject;
  readonly value: number;
  /** What the step is a share of. */
  readonly ratingOf: Known<number>;
  readonly unit: 'VA' | 'W';
  readonly words: string;
}

function stepFinding(context: CheckContext, one: GeneratorCase, { ratingOf, ...step }: Step): Found {
  const { board, type, generator, rating } = one;
  const share = type.largestStep;
  const limit = share !== undefined && ratingOf.known ? ratingOf.value * share : undefined;
  return judge(generatorStep.id, context, {
    subject: step.subject,
    value: step.value,
    limit,
    unit: step.unit,
    missing: [
      ...board.continuous.missing,
      ...(share === undefined ? [['types', type.id, 'largestStep']] : []),
      ...(ratingOf.known ? [] : ratingOf.missing),
    ],
    working: () => ({
      steps:
        share === undefined || !ratingOf.known || limit === undefined
          ? []
          : [
              {
                symbol: 'X_step',
                meaning: `largest step of the ${step.words} at this site`,
                formula: 'X_site · s',
                symbols: [
                  symbol('X_site', `rating of the ${step.words} at this site`, ratingOf.value, step.unit, [
                    'generators',
                    generator.id,
                    'typeId',
                  ]),
                  symbol('s', 'largest step of the type, as a share of its rating', share, ''),
                ],
                value: limit,
                unit: step.unit,
              },
            ],
      inputs: lineInputs(board, undefined),
      source: `The ${loadCaseWords(board)} is taken over at once; charging comes up slowly after it.`,
      notes:
        share === undefined
          ? []
          : stageNotes(loadStages(board.circuits, one.supply, one.reached, rating, share)),
    }),
  });
}

/** The load that a generator takes at once at transfer, against the largest step of its alternator on each line and of its engine in all. */
export const generatorStep: Check<'generator.step'> = checkOf({
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
    eachGenerator(generatorStep.id, context, 'VA', (one): Found[] => {
      const { board, reached, rating, subject, generator, supply } = one;
      const lines = reached.map((index) => {
        const line = supply.lines[index] ?? 'L1';
        return stepFinding(context, one, {
          subject: {
            ...subject,
            id: `${generator.id}/${line}`,
            label: `${generator.name} ${line}`,
            about: [
              { kind: 'generator', id: generator.id },
              { kind: 'supply-line', id: line },
            ],
          },
          value: magnitude(board.continuous.knownPart[index] ?? ZERO),
          ratingOf: known(rating.perLineVa),
          unit: 'VA',
          words: 'alternator on one line',
        });
      });
      const engine = stepFinding(context, one, {
        subject: engineSubject(one),
        value: reached.reduce((sum, index) => sum + (board.continuous.knownPart[index]?.re ?? 0), 0),
        ratingOf: rating.engineW,
        unit: 'W',
        words: 'engine',
      });
      return [...lines, engine];
    }),
});
