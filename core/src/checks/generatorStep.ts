import { add, magnitude, ZERO } from '../network/complex.ts';
import { type Check, judge } from './check.ts';
import { eachGenerator } from './support/generators.ts';
import { lineInputs, loadCaseWords, symbol } from './support/workings.ts';

/** The load that a generator takes at once at transfer, against the largest step its type accepts. */
export const generatorStep: Check = {
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
    eachGenerator(generatorStep.id, context, 'VA', ({ subject, generator, type, deratedVa, board }) => {
      const step = type.largestStep;
      // What a set reaches with fewer lines than the board has is a part of the load only.
      const power = board.continuous.knownPart.slice(0, type.lines).reduce(add, ZERO);
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
          notes: [],
        }),
      });
    }),
};
