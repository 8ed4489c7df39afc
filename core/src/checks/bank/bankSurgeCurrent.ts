import type { CompiledBank } from '../../figures/bank/bank.ts';
import { formatNumber } from '../../words/quantity.ts';
import { type Check, type Measurement, checkOf } from '../check.ts';
import { modulesStep, startCurrentStep } from '../support/bankSteps.ts';
import { eachStart } from '../support/eachStart.ts';
import type { StackCase } from '../support/eachLine.ts';
import { shareNotes } from '../support/sharing.ts';
import { type StartCurrent, worstStart } from '../support/startCurrent.ts';
import { bankSubject } from '../support/subjects.ts';
import { lineInputs } from '../support/workings.ts';

/** What the modules give together for the length of a start, when the hardest-working one is at its limit, A. */
const modulesA = (bank: CompiledBank, { durationS, spread }: StartCurrent): number =>
  (durationS <= bank.type.peakS ? bank.peakDischargeA : bank.continuousDischargeA) / spread;

/** Battery current during a start, at the voltage the bank has then, against the modules' peak for that long. */
export const bankSurgeCurrent: Check<'bank.surge-current'> = checkOf({
  id: 'bank.surge-current',
  title: 'Battery current during the largest start',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: starting {{label}} draws {{value}} for {{needed}} at {{volts}}; the modules give {{limit}} for that long: over by {{margin}}.',
    tight: '{{subject}}: starting {{label}} draws {{value}} of {{limit}} at {{volts}}: {{margin}} left.',
    within: '{{subject}}: starting {{label}} draws {{value}} of {{limit}} at {{volts}}: {{margin}} left.',
    unknown: '{{subject}}: the current during a start cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStart(bankSurgeCurrent.id, context, (one, bank, currents) => {
      const held = worstStart(
        currents,
        ({ amperes }) => amperes,
        (start) => modulesA(bank, start),
      );
      return held && measured(one, bank, held.start, held.missing);
    }),
});

function measured(
  one: StackCase,
  bank: CompiledBank,
  start: StartCurrent,
  missing: Measurement<'label' | 'needed' | 'volts'>['missing'],
): Measurement<'label' | 'needed' | 'volts'> {
  const { durationS, label } = start;
  const isPeak = durationS <= bank.type.peakS;
  const sumA = isPeak ? bank.peakDischargeA : bank.continuousDischargeA;
  return {
    subject: bankSubject(one.compiled),
    value: start.amperes,
    limit: modulesA(bank, start),
    unit: 'A',
    ...(missing === undefined ? {} : { missing }),
    data: { label, needed: `${formatNumber(durationS)} s`, volts: `${formatNumber(start.volts)} V` },
    working: () => ({
      steps: [
        startCurrentStep(start),
        modulesStep(one, bank, {
          sumA,
          what: isPeak
            ? `peak for up to ${bank.type.peakS} s`
            : 'continuous discharge, as the start is longer than the peak,',
          spread: { factor: start.spread, isSolved: start.share !== undefined },
        }),
      ],
      inputs: lineInputs(one.board, undefined),
      source:
        'Constant power on the bank nearly empty, so the current rises as its voltage sags; real power at the start, with its starting power factor, through the inverter efficiency.',
      notes: start.share === undefined ? [] : shareNotes(start.share),
    }),
  };
}
