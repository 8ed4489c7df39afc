import type { Check } from './check.ts';
import { dischargeLimitA } from '../compile/bank.ts';
import { bankOf } from './support/bank.ts';
import { powerWords, startMoment, steadyMoment } from './support/bankMoment.ts';
import { eachStack } from './support/eachLine.ts';
import { spreadAt, spreadWords } from './support/sharing.ts';
import { bankSubject } from './support/subjects.ts';
import { lineInputs, symbol } from './support/workings.ts';
import { formatNumber } from '../words/quantity.ts';

/** Battery current during the start that takes the most real power, against the modules' peak for that long. */
export const bankSurgeCurrent: Check = {
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
      const { compiled, type, board } = one;
      const found = bankOf(compiled);
      if (found === undefined || one.capability.stopped) return [];
      const subject = bankSubject(compiled);
      const start = startMoment(one);
      if (!found.known) {
        return [
          {
            subject,
            value: undefined,
            limit: undefined,
            unit: 'A',
            missing: found.missing,
            working: () => ({ steps: [], inputs: [], source: '', notes: [] }),
          },
        ];
      }
      if (start === undefined && board.starts.missing.length === 0) return [];
      const bank = found.value;
      const watts = start?.watts ?? 0;
      const durationS = start?.durationS ?? 0;
      const share = spreadAt(context, one, bank, start ?? steadyMoment(one));
      const value = watts / (type.efficiency * bank.nominalV);
      const perModuleA = dischargeLimitA(bank.type, durationS);
      const limit = (bank.parallelCount * perModuleA) / share.factor;
      return [
        {
          subject,
          value,
          limit,
          unit: 'A',
          missing: board.starts.missing,
          data: { label: start?.label ?? 'nothing', needed: `${formatNumber(durationS)} s` },
          working: () => ({
            steps: [
              {
                symbol: 'I',
                meaning: 'battery current during the start',
                formula: 'P / (η · U)',
                symbols: [
                  symbol('P', `${powerWords(one)} while ${start?.label ?? 'nothing'} starts`, watts, 'W'),
                  symbol('η', 'inverter efficiency', type.efficiency, '', [
                    'stacks',
                    compiled.stack.id,
                    'inverterTypeId',
                  ]),
                  symbol('U', 'nominal bank voltage', bank.nominalV, 'V', [
                    'stacks',
                    compiled.stack.id,
                    'bank',
                    'batteryTypeId',
                  ]),
                ],
                value,
                unit: 'A',
              },
              {
                symbol: 'I_modules',
                meaning: `what the modules give for ${formatNumber(durationS)} s`,
                formula: 'n · I_module / k_s',
                symbols: [
                  symbol('n', 'modules in parallel', bank.parallelCount, '', [
                    'stacks',
                    compiled.stack.id,
                    'bank',
                    'modules',
                  ]),
                  symbol(
                    'I_module',
                    durationS <= bank.type.peakS
                      ? `peak of one, for up to ${bank.type.peakS} s`
                      : 'continuous discharge of one: the start is longer than the peak',
                    perModuleA,
                    'A',
                  ),
                  symbol('k_s', spreadWords(share), share.factor, ''),
                ],
                value: limit,
                unit: 'A',
              },
            ],
            inputs: lineInputs(board, undefined),
            source:
              'Real power at the start, with its starting power factor, through the inverter efficiency.',
            notes: [],
          }),
        },
      ];
    }),
};
