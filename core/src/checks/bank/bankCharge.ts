import { all } from '../../values/known.ts';
import { type Check, checkOf } from '../check.ts';
import type { Stack } from '../../installation/facts.ts';
import type { WorkingStep } from '../finding.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import { bankOf } from '../support/bank.ts';
import { eachKnown } from '../support/plain.ts';
import { bankSubject } from '../support/subjects.ts';
import { symbol } from '../support/workings.ts';

/** One figure that charges the bank. */
interface ChargingFigure {
  readonly amperes: number;
  readonly what: string;
  readonly step: WorkingStep;
}

/** The charge settings together, and the charging power of each side over the bank voltage: those that are stated. */
function chargingFigures(stack: Stack, units: number, nominalV: number): ChargingFigure[] {
  const n = symbol('n', 'inverters on one bank', units, '', ['stacks', stack.id, 'units']);
  const figures: ChargingFigure[] = [];
  const { chargeCurrentA } = stack;
  if (chargeCurrentA !== undefined)
    figures.push({
      amperes: units * chargeCurrentA,
      what: 'the inverters are set to charge with',
      step: {
        symbol: 'I_ch',
        meaning: 'charge settings together',
        formula: 'n · I_set',
        symbols: [
          n,
          symbol('I_set', 'charge setting of each', chargeCurrentA, 'A', [
            'stacks',
            stack.id,
            'chargeCurrentA',
          ]),
        ],
        value: units * chargeCurrentA,
        unit: 'A',
      },
    });
  for (const [key, side] of [
    ['gridChargeW', 'grid'],
    ['generatorChargeW', 'generator'],
  ] as const) {
    const watts = stack[key];
    if (watts === undefined) continue;
    figures.push({
      amperes: (units * watts) / nominalV,
      what: `charging from the ${side} may reach`,
      step: {
        symbol: `I_${side}`,
        meaning: `charging power from the ${side} over the bank voltage`,
        formula: 'n · P_ch / U',
        symbols: [
          symbol('P_ch', `charging power of each from the ${side}`, watts, 'W', ['stacks', stack.id, key]),
          n,
          symbol('U', 'nominal bank voltage', nominalV, 'V', ['stacks', stack.id, 'bank', 'batteryTypeId']),
        ],
        value: (units * watts) / nominalV,
        unit: 'A',
      },
    });
  }
  return figures;
}

/** Charge settings together, and charging from each side, against what the bank may be charged with and what the inverters give. */
export const bankCharge: Check<'bank.charge'> = checkOf({
  id: 'bank.charge',
  title: 'Charge settings against the bank',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{what}} {{value}} together; the limit is {{limit}} ({{binding}}).',
    tight: '{{subject}}: {{what}} {{value}} of {{limit}} ({{binding}}): {{margin}} left.',
    within: '{{subject}}: {{what}} {{value}} of {{limit}} ({{binding}}).',
    unknown: '{{subject}}: the charge setting cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      bankCharge.id,
      context,
      'A',
      bankSubject,
      (compiled) => {
        const bank = bankOf(compiled);
        return bank === undefined ? undefined : all({ bank, type: compiled.type });
      },
      ({ stack }, { bank, type }) => {
        const units = isOwnBank(stack) ? 1 : stack.units.length;
        const inverterA = units * type.maxChargeA;
        const limit = Math.min(bank.chargeA, inverterA);
        const figures = chargingFigures(stack, units, bank.nominalV);
        const [worst] = [...figures].sort((a, b) => b.amperes - a.amperes);
        return {
          value: worst?.amperes,
          limit,
          // A setting exactly at the limit is what a designer aims for, so this is not graded by margin.
          graded: false,
          missing: stack.chargeCurrentA === undefined ? [['stacks', stack.id, 'chargeCurrentA']] : [],
          data: {
            binding: bank.chargeA <= inverterA ? 'the bank' : 'the inverters',
            what: worst?.what ?? '',
          },
          working: () => ({
            steps: [
              ...figures.map((one) => one.step),
              {
                symbol: 'I_bank',
                meaning: 'charge limit of the bank',
                formula: 'n_p · I_module',
                symbols: [
                  symbol('n_p', 'modules in parallel', bank.parallelCount, '', [
                    'stacks',
                    stack.id,
                    'bank',
                    'modules',
                  ]),
                  symbol('I_module', 'charge limit of one module', bank.type.chargeA, 'A'),
                ],
                value: bank.chargeA,
                unit: 'A',
              },
            ],
            inputs: [],
            source:
              'Charge limits of the battery type and of the inverter type, against the charge settings and against what the grid and the generator may give at the nominal voltage.',
            notes: [],
          }),
        };
      },
    ),
});
