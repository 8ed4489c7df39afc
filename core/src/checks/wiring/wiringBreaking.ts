import type { CompiledStack } from '../../installation/installation.ts';
import { bankOfSet, bankTypesOf } from '../../figures/bank/ofSet.ts';
import type { CompiledBank } from '../../figures/bank/bank.ts';
import { type Check, judge } from '../check.ts';
import type { Finding } from '../finding.ts';
import { onNetwork, refsOf, troubleOrOne, WHOLE } from '../support/network.ts';
import { symbol } from '../support/workings.ts';

/** I_sc = U_max / R of the bank, without leads: the most a bolted fault can draw; undefined while resistances are not known. */
function faultA(compiled: CompiledStack, bank: CompiledBank): { amperes: number; ohm: number } | undefined {
  const types = bankTypesOf(compiled);
  if (!types.known || types.value.some((type) => type.internalMilliohm === undefined)) return undefined;
  const milliohm = Math.min(...types.value.map((type) => type.internalMilliohm ?? Infinity));
  const ohm = ((milliohm / 1000) * bank.seriesCount) / bank.parallelCount;
  return { amperes: bank.maxV / ohm, ohm };
}

/** Breaking capacity of the battery devices against what the bank can drive into a bolted fault. */
export const wiringBreaking: Check<'wiring.breaking'> = {
  id: 'wiring.breaking',
  title: 'Breaking capacity of battery devices',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: the bank can drive {{value}} into a fault and the device opens {{limit}} at most.',
    tight:
      '{{subject}}: the bank can drive {{value}} into a fault; the device opens {{limit}}: {{margin}} left.',
    within: '{{subject}}: the bank can drive {{value}} into a fault; the device opens {{limit}}.',
    unknown: '{{subject}}: the fault current is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringBreaking.id, context, ({ network }) =>
      troubleOrOne(
        network.parts.flatMap((part): Finding[] => {
          const breakingA = part.device?.breakingA;
          const isWhole = part.role === 'battery-unit';
          if (breakingA === undefined || !isWhole) return [];
          const compiled = context.installation.stacks.find(({ stack }) => stack.id === part.stackId);
          const bank = compiled && bankOfSet(compiled);
          if (compiled === undefined || bank?.known !== true || bank.value === 'none') return [];
          const fault = faultA(compiled, bank.value);
          if (fault === undefined) return [];
          return [
            judge(wiringBreaking.id, context, {
              subject: {
                kind: 'part',
                id: part.id,
                label: part.label.charAt(0).toUpperCase() + part.label.slice(1),
                about: refsOf(network, [part.id]),
              },
              value: fault.amperes,
              limit: breakingA,
              unit: 'A',
              working: () => ({
                steps: [
                  {
                    symbol: 'I_sc',
                    meaning: 'current of the bank into a bolted fault',
                    formula: 'U_max / R_bank',
                    symbols: [
                      symbol(
                        'U_max',
                        'highest voltage of the bank',
                        bank.value === 'none' ? 0 : bank.value.maxV,
                        'V',
                      ),
                      symbol('R_bank', 'inner resistance of the bank', fault.ohm, 'Ω'),
                    ],
                    value: fault.amperes,
                    unit: 'A',
                  },
                ],
                inputs: [],
                source: 'Inner resistance of the modules alone, without leads: the cautious side.',
                notes: [],
              }),
            }),
          ];
        }),
        { ...WHOLE, label: 'Every battery device' },
      ),
    ),
};
