import { transferTime } from '../../figures/capability/transferTime.ts';
import type { StartOnLine, SurgeStep } from '../../figures/loads/surges.ts';
import { formatNumber } from '../../words/quantity.ts';
import { type Check, checkOf } from '../check.ts';
import { eachSurgePlace } from '../support/surge.ts';
import { lineInputs, overrideNotes, symbol } from '../support/workings.ts';

interface Deepest {
  readonly start: StartOnLine;
  readonly step: SurgeStep;
}

/** The start that asks for the most VA at any moment. */
function deepestOf(starts: readonly StartOnLine[]): Deepest | undefined {
  let deepest: Deepest | undefined;
  for (const start of starts)
    for (const step of start.steps)
      if (deepest === undefined || step.va > deepest.step.va) deepest = { start, step };
  return deepest;
}

/**
 * Voltage while a start is made: past the most current an inverter gives, the voltage falls to V = I_limit / I_demand. A motor
 * that never sees enough of it does not come up to speed.
 */
export const surgeStall: Check<'surge.stall'> = checkOf({
  id: 'surge.stall',
  title: 'Voltage while starting',
  family: 'surge',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: while {{label}} starts, the voltage falls to {{value}} of nominal after a transfer of {{gap}}; below {{limit}} it will probably stall.',
    tight:
      '{{subject}}: while {{label}} starts, the voltage falls to {{value}} of nominal; {{limit}} is needed.',
    within:
      '{{subject}}: while {{label}} starts, the voltage holds {{value}} of nominal; {{limit}} is needed.',
    unknown: '{{subject}}: the voltage while starting is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSurgePlace(surgeStall.id, context, ({ one, subject, line, ratedVa, starts }) => {
      const { missing } = one.board.starts;
      const deepest = deepestOf(starts);
      if (deepest === undefined && missing.length === 0) return undefined;
      const multiple = one.type.overloadCurve.at(-1)?.multiple ?? 1;
      const mostVa = ratedVa * multiple;
      const demandVa = deepest?.step.va ?? 0;
      const value = demandVa > mostVa ? mostVa / demandVa : 1;
      const { defaults } = context.installation;
      const time = transferTime(one.compiled);
      const gapMs = time.known ? time.value.ms : undefined;
      return {
        subject,
        value,
        limit: defaults.startVoltage.value,
        unit: 'fraction',
        bound: 'at-least',
        missing,
        data: {
          label: deepest?.start.label ?? 'nothing',
          gap: gapMs === undefined ? 'unknown length' : `${formatNumber(gapMs)} ms`,
        },
        working: () => ({
          steps: [
            {
              symbol: 'v',
              meaning: 'voltage left, as a share of nominal',
              formula: 'min(1, S_line · m / S_start)',
              symbols: [
                symbol('S_line', 'usable capacity here', ratedVa, 'VA'),
                symbol('m', 'largest multiple the overload curve knows', multiple, '', [
                  'stacks',
                  one.compiled.stack.id,
                  'inverterTypeId',
                ]),
                symbol(
                  'S_start',
                  'asked for at full voltage, running loads included',
                  Math.max(demandVa, 1e-9),
                  'VA',
                ),
              ],
              value,
              unit: '',
            },
          ],
          inputs: lineInputs(one.board, line),
          source:
            'Beyond the current limit the voltage follows the impedance of what hangs on it: V = I_limit / I_demand.',
          notes: [
            `After the transfer (${gapMs === undefined ? 'time not known' : `${formatNumber(gapMs)} ms`}) the start lasts ${formatNumber(deepest?.step.durationS ?? 0)} s at its deepest.`,
            ...overrideNotes(context.installation, 'startVoltage'),
          ],
        }),
      };
    }),
});
