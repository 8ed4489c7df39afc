import { all } from '../../values/known.ts';
import { scale } from '../../network/complex.ts';
import { lineCurrents, neutralCurrentA } from '../../network/phasors.ts';
import { type Check, checkOf } from '../check.ts';
import { eachStack } from '../support/eachLine.ts';
import { stackSubject } from '../support/subjects.ts';
import { lineInputs, overrideNotes, symbol } from '../support/workings.ts';

/** Neutral current of the backed-up board against the autotransformer, or against the backup ports of the set. */
export const balanceNeutral: Check<'balance.neutral'> = checkOf({
  id: 'balance.neutral',
  title: 'Neutral current',
  family: 'balance',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: the neutral carries {{value}}; {{what}} takes {{limit}}: over by {{margin}}.',
    tight: '{{subject}}: the neutral carries {{value}} of {{limit}} ({{what}}): {{margin}} left.',
    within: '{{subject}}: the neutral carries {{value}} of {{limit}} ({{what}}): {{margin}} left.',
    unknown: '{{subject}}: the neutral current cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(balanceNeutral.id, context, 'A', ({ compiled, board, type, capability, lines }) => {
      if (capability.stopped || lines.length < 2) return [];
      const given = all({
        lineVoltageV: context.installation.lineVoltageV,
        supply: context.installation.supply,
        auto: compiled.autotransformer,
      });
      const subject = stackSubject(compiled);
      if (!given.known) {
        return [
          {
            subject,
            value: undefined,
            limit: undefined,
            unit: 'A',
            missing: given.missing,
            working: () => ({ steps: [], inputs: [], source: '', notes: [] }),
          },
        ];
      }
      const { lineVoltageV, supply, auto } = given.value;
      const voltages = supply.directions.map((direction) => scale(direction, lineVoltageV));
      const currents = lineCurrents(board.continuous.knownPart, voltages);
      const thirdA = board.harmonicVa.knownPart.map((va) => va / lineVoltageV);
      const value = neutralCurrentA(currents, thirdA);
      const fundamentalA = neutralCurrentA(currents, []);
      const units = Math.max(1, Math.min(...capability.unitsOnLine));
      const portA =
        type.backupPortA === undefined ? undefined : (units * type.backupPortA) / (1 + capability.sharing);
      const limit = auto === 'none' ? portA : auto.neutralA;
      const missing = limit === undefined ? [['types', type.id, 'backupPortA']] : [];
      return [
        {
          subject,
          value,
          limit,
          unit: 'A',
          missing: [...board.continuous.missing, ...missing],
          data: { what: auto === 'none' ? 'the backup ports' : 'the autotransformer' },
          working: () => ({
            steps: [
              {
                symbol: 'I_N',
                meaning: 'neutral current',
                formula: '√(I_f · I_f + I_3 · I_3)',
                symbols: [
                  symbol('I_f', 'phasor sum of the line currents', fundamentalA, 'A'),
                  symbol(
                    'I_3',
                    'third harmonics that return by the neutral',
                    Math.sqrt(Math.max(0, value * value - fundamentalA * fundamentalA)),
                    'A',
                  ),
                ],
                value,
                unit: 'A',
              },
            ],
            inputs: lineInputs(board, undefined),
            source:
              'Phasor sum of line-to-neutral currents; third harmonics add on lines 120° apart and oppose on lines 180° apart.',
            notes: [
              `Electronic loads are taken with ${context.installation.defaults.electronicThirdHarmonic.value} of third harmonic.`,
              ...overrideNotes(context.installation, 'electronicThirdHarmonic'),
            ],
          }),
        },
      ];
    }),
});
