import { magnitude } from '../../network/complex.ts';
import { imbalance } from '../../network/phasors.ts';
import { type Check, checkOf } from '../check.ts';
import { eachStack } from '../support/eachLine.ts';
import { stackSubject } from '../support/subjects.ts';
import { lineInputs, symbol } from '../support/workings.ts';

/** Imbalance of the backed-up lines against the limit of the inverter type. */
export const balanceLines: Check<'balance.lines'> = checkOf({
  id: 'balance.lines',
  title: 'Imbalance',
  family: 'balance',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: the lines differ by {{value}} of their mean; the type takes {{limit}}.',
    tight: '{{subject}}: the lines differ by {{value}} of their mean; the type takes {{limit}}.',
    within: '{{subject}}: the lines differ by {{value}} of their mean; the type takes {{limit}}.',
    unknown: '{{subject}}: the imbalance cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(balanceLines.id, context, 'fraction', ({ compiled, board, lines, type, capability }) => {
      if (lines.length < 2 || capability.stopped || !capability.unitsOnLine.every((n) => n > 0)) return [];
      const loads = board.continuous.knownPart.map(magnitude);
      const value = imbalance(loads);
      const mean = loads.reduce((sum, one) => sum + one, 0) / loads.length;
      // An autotransformer has its own limit, the neutral current; a type without a stated limit is not known.
      if (type.imbalanceLimit === undefined && compiled.stack.arrangement === 'split-phase-autotransformer')
        return [];
      const missing = type.imbalanceLimit === undefined ? [['types', type.id, 'imbalanceLimit']] : [];
      return [
        {
          subject: stackSubject(compiled),
          value,
          limit: type.imbalanceLimit,
          unit: 'fraction',
          missing: [...board.continuous.missing, ...missing],
          working: () => ({
            steps: [
              {
                symbol: 'u',
                meaning: 'imbalance',
                formula: '(S_max − S_min) / S_mean',
                symbols: [
                  symbol('S_max', 'most loaded line', Math.max(...loads), 'VA'),
                  symbol('S_min', 'least loaded line', Math.min(...loads), 'VA'),
                  symbol('S_mean', 'mean of the lines', mean, 'VA'),
                ],
                value,
                unit: 'fraction',
              },
            ],
            inputs: lineInputs(board, undefined),
            source: 'Expected peak of each line; limit from the inverter type.',
            notes: [],
          }),
        },
      ];
    }),
});
