import type { Board } from '../../figures/loads/board.ts';
import { type OutputLoad, outputLoads } from '../../figures/loads/outputs.ts';
import type { Line } from '../../values/quantities.ts';
import { magnitude, ZERO } from '../../network/complex.ts';
import { type Check, type CheckContext, type Measurement, checkOf } from '../check.ts';
import { eachStack, isDark, type StackCase } from '../support/eachLine.ts';
import { outputLimit, outputSubject } from '../support/outputs.ts';
import { lineInputs, symbol } from '../support/workings.ts';

function measure(
  context: CheckContext,
  one: StackCase,
  output: OutputLoad,
  board: Board,
  line: Line,
): Measurement<'output'> | undefined {
  const { limitA, missing, name } = output;
  const power = board.continuous.knownPart[one.lines.indexOf(line)] ?? ZERO;
  if (magnitude(power) === 0 && board.continuous.missing.length === 0) return undefined;
  const volts = context.installation.lineVoltageV;
  const value = volts.known ? magnitude(power) / volts.value : undefined;
  const held = limitA === undefined ? undefined : outputLimit(context, one, line, limitA);
  return {
    subject: outputSubject(one, output, line),
    value,
    limit: held?.amperes,
    unit: 'A',
    missing: [...board.continuous.missing, ...(volts.known ? [] : volts.missing), ...missing],
    data: { output: name },
    working: () => ({
      steps:
        value === undefined || held === undefined || !volts.known
          ? []
          : [
              {
                symbol: 'I',
                meaning: 'current of what hangs on the output, on this line',
                formula: '√(P · P + Q · Q) / V',
                symbols: [
                  symbol('P', 'real power on the line', power.re, 'W'),
                  symbol('Q', 'reactive power on the line', power.im, 'var'),
                  symbol('V', 'line to neutral', volts.value, 'V', ['site', 'lineVoltageV']),
                ],
                value,
                unit: 'A',
              },
              {
                symbol: 'I_max',
                meaning: `${name} of the units on this line`,
                formula: 'n · I_out / (1 + ε)',
                symbols: [
                  symbol('n', 'units on the line', held.units, '', [
                    'stacks',
                    one.compiled.stack.id,
                    'units',
                  ]),
                  symbol('I_out', `${name} of one unit`, limitA ?? 0, 'A', [
                    'stacks',
                    one.compiled.stack.id,
                    'inverterTypeId',
                  ]),
                  symbol('ε', 'current-sharing tolerance, 0 for one unit', held.sharing, ''),
                ],
                value: held.amperes,
                unit: 'A',
              },
            ],
      inputs: lineInputs(board, line),
      source: 'Everything that hangs on an output together against the limit of that output, per line.',
      notes: [],
    }),
  };
}

/** The current of everything on a backup output against the limit of that output, line by line. */
export const loadOutput: Check<'load.output'> = checkOf({
  id: 'load.output',
  title: 'Backup output',
  family: 'load',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: {{value}} from the {{output}}, which gives {{limit}}: over by {{margin}}.',
    tight: '{{subject}}: {{value}} of {{limit}} from the {{output}}: {{margin}} left.',
    within: '{{subject}}: {{value}} of {{limit}} from the {{output}}: {{margin}} left.',
    unknown: '{{subject}}: what it draws from its output cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(loadOutput.id, context, 'A', (one) =>
      one.capability.stopped
        ? []
        : outputLoads(one.compiled).flatMap((output) => {
            const { board } = output;
            return board.known
              ? one.lines.map((line, index) =>
                  isDark(context, one, index) ? undefined : measure(context, one, output, board.value, line),
                )
              : [];
          }),
    ),
});
