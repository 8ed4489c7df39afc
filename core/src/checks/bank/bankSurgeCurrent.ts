import type { CompiledBank } from '../../figures/bank/bank.ts';
import { formatNumber } from '../../words/quantity.ts';
import type { Check, CheckContext, Measurement } from '../check.ts';
import { bankOf } from '../support/bank.ts';
import { bankUnknown } from '../support/bankDemand.ts';
import { type BankMoment, startMoment, steadyMoment } from '../support/bankMoment.ts';
import { batteryCurrentStep, modulesStep } from '../support/bankSteps.ts';
import { eachStack, type StackCase } from '../support/eachLine.ts';
import { spreadAt } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';
import { lineInputs } from '../support/workings.ts';

/** Battery current during the start that takes the most real power, against the modules' peak for that long. */
export const bankSurgeCurrent: Check<'bank.surge-current'> = {
  id: 'bank.surge-current',
  title: 'Battery current during the largest start',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: starting {{label}} draws {{value}} for {{needed}}; the modules give {{limit}} for that long: over by {{margin}}.',
    tight: '{{subject}}: starting {{label}} draws {{value}} of {{limit}}: {{margin}} left.',
    within: '{{subject}}: starting {{label}} draws {{value}} of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: the current during a start cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(bankSurgeCurrent.id, context, 'A', (one) => {
      const found = bankOf(one.compiled);
      if (found === undefined || one.capability.stopped) return [];
      if (!found.known) return [bankUnknown(one, found.missing)];
      const { missing } = one.board.starts;
      const start = startMoment(one);
      return start === undefined && missing.length === 0
        ? []
        : [
            measured(
              context,
              one,
              found.value,
              start ?? { ...steadyMoment(one), watts: 0, label: 'nothing' },
            ),
          ];
    }),
};

function measured(context: CheckContext, one: StackCase, bank: CompiledBank, start: BankMoment): Measurement {
  const durationS = start.durationS ?? 0;
  const isPeak = durationS <= bank.type.peakS;
  const spread = spreadAt(context, one, bank, start);
  const sumA = isPeak ? bank.peakDischargeA : bank.continuousDischargeA;
  const needed = `${formatNumber(durationS)} s`;
  return {
    subject: bankSubject(one.compiled),
    value: start.watts / (one.type.efficiency * bank.nominalV),
    limit: sumA / spread.factor,
    unit: 'A',
    missing: one.board.starts.missing,
    data: { label: start.label, needed },
    working: () => ({
      steps: [
        batteryCurrentStep(one, {
          watts: start.watts,
          volts: bank.nominalV,
          when: `while ${start.label} starts`,
          voltage: 'nominal bank voltage',
        }),
        modulesStep(one, bank, {
          sumA,
          what: isPeak
            ? `peak for up to ${bank.type.peakS} s`
            : 'continuous discharge, as the start is longer than the peak,',
          spread,
        }),
      ],
      inputs: lineInputs(one.board, undefined),
      source: 'Real power at the start, with its starting power factor, through the inverter efficiency.',
      notes: [],
    }),
  };
}
