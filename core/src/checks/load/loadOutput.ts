import { partitionBoard } from '../../figures/loads/boards.ts';
import type { Line } from '../../values/quantities.ts';
import type { Path } from '../../values/problem.ts';
import type { Partition } from '../../installation/facts.ts';
import type { Board } from '../../figures/loads/board.ts';
import { magnitude, ZERO } from '../../network/complex.ts';
import type { Check, CheckContext, Measurement } from '../check.ts';
import { eachStack, type StackCase } from '../support/eachLine.ts';
import { lineInputs, symbol } from '../support/workings.ts';

/** Limit of the output a partition hangs on, A per unit and line; undefined with the place that does not say it. */
function outputLimit(
  one: StackCase,
  partition: Partition,
): { limitA?: number; missing: Path[]; name: string } {
  const { type } = one;
  if (type.outputs === undefined) {
    return type.backupPortA === undefined
      ? { missing: [['types', type.id, 'backupPortA']], name: 'backup output' }
      : { limitA: type.backupPortA, missing: [], name: 'backup output' };
  }
  const output = type.outputs.find((found) => found.id === partition.outputId);
  if (output === undefined) return { missing: [['partitions', partition.id, 'outputId']], name: 'output' };
  return { limitA: output.limitA, missing: [], name: output.name };
}

function measure(
  context: CheckContext,
  one: StackCase,
  partition: Partition,
  board: Board,
  line: Line,
): Measurement | undefined {
  const { installation } = context;
  const index = one.lines.indexOf(line);
  const power = board.continuous.knownPart[index] ?? ZERO;
  const { limitA, missing, name } = outputLimit(one, partition);
  const units = one.capability.unitsOnLine[index] ?? 0;
  if (magnitude(power) === 0 && board.continuous.missing.length === 0) return undefined;
  const sharing = units > 1 ? installation.defaults.currentSharingTolerance.value : 0;
  const volts = installation.lineVoltageV;
  const value = volts.known ? magnitude(power) / volts.value : undefined;
  const limit = limitA === undefined ? undefined : (units * limitA) / (1 + sharing);
  return {
    subject: {
      kind: 'line',
      id: `${one.compiled.stack.id}/${partition.id}/${line}`,
      about: [
        { kind: 'stack', id: one.compiled.stack.id },
        { kind: 'partition', id: partition.id },
        { kind: 'supply-line', id: line },
      ],
      label: `${partition.name} ${line}`,
    },
    value,
    limit,
    unit: 'A',
    missing: [...board.continuous.missing, ...(volts.known ? [] : volts.missing), ...missing],
    data: { output: name },
    working: () => ({
      steps:
        value === undefined || limit === undefined || !volts.known
          ? []
          : [
              {
                symbol: 'I',
                meaning: 'current of the partition on this line',
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
                  symbol('n', 'units on the line', units, '', ['stacks', one.compiled.stack.id, 'units']),
                  symbol('I_out', `${name} of one unit`, limitA ?? 0, 'A', [
                    'stacks',
                    one.compiled.stack.id,
                    'inverterTypeId',
                  ]),
                  symbol('ε', 'current-sharing tolerance, 0 for one unit', sharing, ''),
                ],
                value: limit,
                unit: 'A',
              },
            ],
      inputs: lineInputs(board, line),
      source: 'Each partition against the limit of the output it hangs on, per line.',
      notes: [],
    }),
  };
}

/** The current of each carried partition against the backup output it hangs on, line by line. */
export const loadOutput: Check<'load.output'> = {
  id: 'load.output',
  title: 'Backup output',
  family: 'load',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}} draws {{value}} from the {{output}}, which gives {{limit}}: over by {{margin}}.',
    tight: '{{subject}} draws {{value}} of {{limit}} from the {{output}}: {{margin}} left.',
    within: '{{subject}} draws {{value}} of {{limit}} from the {{output}}: {{margin}} left.',
    unknown: '{{subject}}: the {{output}} cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(loadOutput.id, context, 'A', (one) => {
      if (one.capability.stopped) return [];
      return one.compiled.partitions.flatMap((partition) => {
        const board = partitionBoard(one.compiled, partition);
        return board.known
          ? one.lines.map((line) => measure(context, one, partition, board.value, line))
          : [];
      });
    }),
};
