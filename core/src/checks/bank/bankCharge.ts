import { all, field } from '../../values/known.ts';
import type { Check } from '../check.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import { bankOf } from '../support/bank.ts';
import { eachKnown } from '../support/plain.ts';
import { bankSubject } from '../support/subjects.ts';
import { symbol } from '../support/workings.ts';

/** Sum of the inverters' charge settings against what the bank may be charged with, and each against its inverter. */
export const bankCharge: Check<'bank.charge'> = {
  id: 'bank.charge',
  title: 'Charge settings against the bank',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}}: the inverters are set to charge with {{value}} together; the limit is {{limit}} ({{binding}}).',
    tight:
      '{{subject}}: the inverters are set to charge with {{value}} of {{limit}} ({{binding}}): {{margin}} left.',
    within: '{{subject}}: the inverters are set to charge with {{value}} of {{limit}} ({{binding}}).',
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
        return bank === undefined
          ? undefined
          : all({
              bank,
              type: compiled.type,
              setA: field(compiled.stack.chargeCurrentA, 'stacks', compiled.stack.id, 'chargeCurrentA'),
            });
      },
      ({ stack }, { bank, type, setA }) => {
        const units = isOwnBank(stack) ? 1 : stack.units.length;
        const value = units * setA;
        const inverterA = units * type.maxChargeA;
        const limit = Math.min(bank.chargeA, inverterA);
        return {
          value,
          limit,
          // A setting exactly at the limit is what a designer aims for, so this is not graded by margin.
          graded: false,
          data: { binding: bank.chargeA <= inverterA ? 'the bank' : 'the inverters' },
          working: () => ({
            steps: [
              {
                symbol: 'I_ch',
                meaning: 'charge settings together',
                formula: 'n · I_set',
                symbols: [
                  symbol('n', 'inverters on one bank', units, '', ['stacks', stack.id, 'units']),
                  symbol('I_set', 'charge setting of each', setA, 'A', [
                    'stacks',
                    stack.id,
                    'chargeCurrentA',
                  ]),
                ],
                value,
                unit: 'A',
              },
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
            source: 'Charge limits of the battery type and of the inverter type.',
            notes: [],
          }),
        };
      },
    ),
};
