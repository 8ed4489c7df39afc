import { allowedMultiple } from '../../network/overload.ts';
import { formatNumber } from '../../words/quantity.ts';
import { type Check, checkOf } from '../check.ts';
import { startCurrentStep } from '../support/bankSteps.ts';
import { eachStart } from '../support/eachStart.ts';
import { type StartCurrent, worstStart } from '../support/startCurrent.ts';
import { bankSubject } from '../support/subjects.ts';
import { symbol } from '../support/workings.ts';

/** Direct current of the hardest-working inverter during a start against what its battery side takes for that long. */
export const bankInverterSurge: Check<'bank.inverter-surge'> = checkOf({
  id: 'bank.inverter-surge',
  title: 'Direct current of an inverter during the largest start',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: starting {{label}}, one inverter draws {{value}} for {{needed}} at {{volts}}; its battery side takes {{limit}} for that long: over by {{margin}}.',
    tight: '{{subject}}: starting {{label}}, one inverter draws {{value}} of {{limit}}: {{margin}} left.',
    within: '{{subject}}: starting {{label}}, one inverter draws {{value}} of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: what one inverter draws during a start is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStart(bankInverterSurge.id, context, (one, _bank, currents) => {
      const { type } = one;
      const multiple = ({ durationS }: StartCurrent): number =>
        Math.max(1, allowedMultiple(type.overloadCurve, durationS));
      // A stated figure counts; without one the battery side takes as many times its rating as the output does.
      const limitOf = (start: StartCurrent): number =>
        type.surgeDischargeA ?? type.maxDischargeA * multiple(start);
      const held = worstStart(currents, ({ hardestUnitA }) => hardestUnitA, limitOf);
      if (held === undefined) return undefined;
      const { start, limit, missing } = held;
      return {
        subject: bankSubject(one.compiled),
        value: start.hardestUnitA,
        limit,
        unit: 'A',
        missing,
        data: {
          label: start.label,
          needed: `${formatNumber(start.durationS)} s`,
          volts: `${formatNumber(start.volts)} V`,
        },
        working: () => ({
          steps: [
            startCurrentStep(start),
            ...(type.surgeDischargeA === undefined
              ? [
                  {
                    symbol: 'I_inv',
                    meaning: 'what the battery side of one inverter takes for the length of the start',
                    formula: 'I_max · m',
                    symbols: [
                      symbol('I_max', 'largest discharge current of the type', type.maxDischargeA, 'A', [
                        'stacks',
                        one.compiled.stack.id,
                        'inverterTypeId',
                      ]),
                      symbol('m', 'overload its output holds for that long', multiple(start), ''),
                    ],
                    value: limit,
                    unit: 'A',
                  },
                ]
              : []),
          ],
          inputs: [],
          source:
            type.surgeDischargeA === undefined
              ? 'Largest discharge current of the type times the overload of its output, as it states no short current of its own.'
              : 'Short discharge current that the inverter type states.',
          notes: [],
        }),
      };
    }),
});
