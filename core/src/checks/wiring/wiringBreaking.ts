import { bankFault } from '../../figures/bank/bankFault.ts';
import { bankOfSet } from '../../figures/bank/ofSet.ts';
import { type Check, judge, unknownFinding } from '../check.ts';
import type { Finding } from '../finding.ts';
import { onNetwork, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';
import { symbol } from '../support/workings.ts';

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
          if (compiled === undefined) return [];
          const found = bankOfSet(compiled);
          const subject = partSubject(network, part);
          if (!found.known) return [unknownFinding(wiringBreaking.id, context, subject, 'A', found.missing)];
          if (found.value === 'none') return [];
          const bank = found.value;
          const known = bankFault(compiled, bank);
          if (!known.known) return [unknownFinding(wiringBreaking.id, context, subject, 'A', known.missing)];
          const fault = known.value;
          return [
            judge(wiringBreaking.id, context, {
              subject,
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
                      symbol('U_max', 'highest voltage of the bank', bank.maxV, 'V'),
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
        { ...WHOLE, label: 'Every inverter’s battery device of a stated breaking capacity' },
      ),
    ),
};
