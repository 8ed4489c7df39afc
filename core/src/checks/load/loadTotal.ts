import type { InverterType } from '../../catalogue/inverterType.ts';
import type { Capability } from '../../figures/capability/capability.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import type { Line } from '../../values/quantities.ts';
import { add, magnitude, ZERO } from '../../network/complex.ts';
import { type Check, checkOf } from '../check.ts';
import type { WorkingStep } from '../finding.ts';
import { eachStack } from '../support/eachLine.ts';
import { stackSubject } from '../support/subjects.ts';
import { apparentPowerStep, lineInputs, loadCaseWords, symbol } from '../support/workings.ts';

/** A set of single-phase units, or a cabinet, is worth its lines together; one behind an autotransformer its units. */
function totalStep(
  { stack }: CompiledStack,
  lines: readonly Line[],
  type: InverterType,
  capability: Capability,
): WorkingStep {
  const step = {
    symbol: 'S_total',
    meaning: 'usable capacity of the set',
    value: capability.totalVa,
    unit: 'VA',
  };
  if (stack.arrangement !== 'split-phase-autotransformer') {
    const symbols = lines.map((line, index) =>
      symbol(`S_${line}`, `usable capacity of ${line}`, capability.perLineVa[index] ?? 0, 'VA', [
        'stacks',
        stack.id,
        'units',
      ]),
    );
    return { ...step, formula: symbols.map((one) => one.symbol).join(' + '), symbols };
  }
  const symbols = [
    symbol('N', 'units that carry load', capability.unitCount, '', ['stacks', stack.id, 'units']),
    symbol('S_unit', `rating of one ${type.name}`, type.ratedVa, 'VA', [
      'stacks',
      stack.id,
      'inverterTypeId',
    ]),
    symbol('k', 'derating at the hottest air', capability.derating, '', ['site', 'equipmentHighestC']),
    symbol('ε', 'current-sharing tolerance', capability.sharing, ''),
  ];
  return { ...step, formula: 'N · S_unit · k / (1 + ε)', symbols };
}

/** All lines together against the whole set. Beside the line checks it matters for sets that share among lines. */
export const loadTotal: Check<'load.total'> = checkOf({
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
    eachStack(loadTotal.id, context, 'VA', ({ compiled, lines, board, capability, type }) => {
      const sum = board.continuous.knownPart.reduce(add, ZERO);
      return [
        {
          subject: stackSubject(compiled),
          value: magnitude(sum),
          limit: capability.totalVa,
          unit: 'VA',
          missing: board.continuous.missing,
          working: () => ({
            steps: [
              apparentPowerStep('S_load', `${loadCaseWords(board)} of all lines`, sum),
              totalStep(compiled, lines, type, capability),
            ],
            inputs: lineInputs(board, undefined),
            source: 'Sum of the lines as apparent power.',
            notes: [],
          }),
        },
      ];
    }),
});
