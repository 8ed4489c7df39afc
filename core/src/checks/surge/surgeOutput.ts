import { type OutputLoad, outputLoads } from '../../figures/loads/outputs.ts';
import type { Line } from '../../values/quantities.ts';
import { allowedMultiple } from '../../network/overload.ts';
import { formatNumber } from '../../words/quantity.ts';
import { type Check, type CheckContext, type Measured, NO_WORKING, checkOf } from '../check.ts';
import { eachStack, isDark, type StackCase } from '../support/eachLine.ts';
import { outputLimit, outputSubject } from '../support/outputs.ts';
import { lineInputs, symbol } from '../support/workings.ts';

interface Held {
  readonly label: string;
  readonly amperes: number;
  readonly limitA: number;
  readonly durationS: number;
}

/** The start on one line of an output that comes nearest to what the output gives for its length. */
function worstOn(
  context: CheckContext,
  one: StackCase,
  output: OutputLoad,
  line: Line,
  volts: number,
): Held | undefined {
  const { board, limitA, surgeA } = output;
  if (!board.known || limitA === undefined) return undefined;
  let worst: Held | undefined;
  for (const start of board.value.starts.knownPart[one.lines.indexOf(line)] ?? [])
    for (const step of start.steps) {
      const multiple = Math.max(1, allowedMultiple(one.type.overloadCurve, step.durationS));
      const limit = outputLimit(context, one, line, surgeA ?? limitA * multiple).amperes;
      const found = {
        label: start.label,
        amperes: step.va / volts,
        limitA: limit,
        durationS: step.durationS,
      };
      if (worst === undefined || found.amperes / found.limitA > worst.amperes / worst.limitA) worst = found;
    }
  return worst;
}

/** Starts of what hangs on one of several outputs against what that output gives for their length. */
export const surgeOutput: Check<'surge.output'> = checkOf({
  id: 'surge.output',
  title: 'Starts on one of several outputs',
  family: 'surge',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: starting {{label}} takes {{value}} for {{needed}} from the {{output}}, which gives {{limit}} for that long: over by {{margin}}.',
    tight:
      '{{subject}}: starting {{label}} takes {{value}} of {{limit}} from the {{output}}: {{margin}} left.',
    within:
      '{{subject}}: starting {{label}} takes {{value}} of {{limit}} from the {{output}}: {{margin}} left.',
    unknown: '{{subject}}: the starts on this output are not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(
      surgeOutput.id,
      context,
      'A',
      (one): (Measured<'label' | 'needed' | 'output'> | undefined)[] => {
        const { lineVoltageV } = context.installation;
        // With one output its limit and that of the set are looked at together, by other checks.
        if (one.capability.stopped || one.type.outputs === undefined || !lineVoltageV.known) return [];
        return outputLoads(one.compiled).flatMap((output) =>
          one.lines.map((line, index): Measured<'label' | 'needed' | 'output'> | undefined => {
            if (isDark(context, one, index)) return undefined;
            const { board } = output;
            const worst = worstOn(context, one, output, line, lineVoltageV.value);
            const missing = board.known ? board.value.starts.missing : board.missing;
            const subject = outputSubject(one, output, line);
            if (worst === undefined)
              return missing.length === 0
                ? undefined
                : {
                    subject,
                    value: undefined,
                    limit: undefined,
                    unit: 'A',
                    missing,
                    working: () => NO_WORKING,
                  };
            return {
              subject,
              value: worst.amperes,
              limit: worst.limitA,
              unit: 'A',
              missing,
              data: { output: output.name, label: worst.label, needed: `${formatNumber(worst.durationS)} s` },
              working: () => ({
                steps: [
                  {
                    symbol: 'I',
                    meaning: `current while ${worst.label} starts, running loads of the output included`,
                    formula: 'S / V',
                    symbols: [
                      symbol('S', 'starting and running VA', worst.amperes * lineVoltageV.value, 'VA'),
                      symbol('V', 'line to neutral', lineVoltageV.value, 'V', ['site', 'lineVoltageV']),
                    ],
                    value: worst.amperes,
                    unit: 'A',
                  },
                ],
                inputs: board.known ? lineInputs(board.value, line) : [],
                source:
                  output.surgeA === undefined
                    ? 'Limit of the output times the overload that the inverter holds for the length of the start.'
                    : 'Short limit that the type states for this output.',
                notes: [],
              }),
            };
          }),
        );
      },
    ),
});
