import { add, magnitude, ZERO } from '../network/complex.ts';
import type { Check } from './check.ts';
import { eachStack } from './support/eachLine.ts';
import { stackSubject } from './support/subjects.ts';
import { apparentPowerStep, lineInputs, symbol } from './support/workings.ts';

/** All lines together against the whole set. Beside the line checks it matters for sets that share among lines. */
export const loadTotal: Check = {
  id: 'load.total',
  title: 'Load on the whole stack',
  family: 'load',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}} as a whole is asked for {{value}} and can carry {{limit}}: over by {{margin}}.',
    tight: '{{subject}} as a whole carries {{value}} of {{limit}}: {{margin}} left.',
    within: '{{subject}} as a whole carries {{value}} of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: the whole load is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(loadTotal.id, context, 'VA', ({ compiled, board, capability, type }) => {
      const sum = board.expected.knownPart.reduce(add, ZERO);
      return [
        {
          subject: stackSubject(compiled),
          value: magnitude(sum),
          limit: capability.totalVa,
          unit: 'VA',
          missing: board.expected.missing,
          working: () => ({
            steps: [
              apparentPowerStep('S_load', 'expected peak of all lines', sum),
              {
                symbol: 'S_total',
                meaning: 'usable capacity of the set',
                formula: 'N · S_unit · k / (1 + ε)',
                symbols: [
                  symbol('N', 'units that carry load', capability.unitCount, '', [
                    'stacks',
                    compiled.stack.id,
                    'units',
                  ]),
                  symbol('S_unit', `rating of one ${type.name}`, type.ratedVa, 'VA', [
                    'stacks',
                    compiled.stack.id,
                    'inverterTypeId',
                  ]),
                  symbol('k', 'derating at the hottest air', capability.derating, '', [
                    'site',
                    'equipmentHighestC',
                  ]),
                  symbol('ε', 'current-sharing tolerance', capability.sharing, ''),
                ],
                value: capability.totalVa,
                unit: 'VA',
              },
            ],
            inputs: lineInputs(board, undefined),
            source: 'Sum of the lines as apparent power.',
            notes: [],
          }),
        },
      ];
    }),
};
