import { capabilityWithout } from '../../figures/capability/capability.ts';
import { all } from '../../values/known.ts';
import { add, complex, magnitude, ZERO } from '../../network/complex.ts';
import { type Check, judge, unknownFinding } from '../check.ts';
import type { Finding } from '../finding.ts';
import { eachGenerator } from '../support/generators.ts';
import { lineChargeW } from '../support/charging.ts';
import { lineInputs, loadCaseWords, overrideNotes, symbol } from '../support/workings.ts';

/** Backed-up load and charging on each line of a generator against its derated rating times the loading target. */
export const generatorLoading: Check<'generator.loading'> = {
  id: 'generator.loading',
  title: 'Generator loading',
  family: 'generator',
  modes: ['generator-port', 'transfer-switch'],
  sentences: {
    over: '{{subject}} is asked for {{value}} with charging; {{limit}} is the target at this site: over by {{margin}}. Lower the charging power or shed load.',
    tight: '{{subject}} gives {{value}} of {{limit}} with charging: {{margin}} left.',
    within: '{{subject}} gives {{value}} of {{limit}} with charging: {{margin}} left.',
    unknown: '{{subject}}: the loading cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachGenerator(generatorLoading.id, context, 'VA', (one): Finding[] => {
      const { subject, generator, compiled, supply, board, reached } = one;
      const given = all({ inverter: compiled.type, capability: capabilityWithout(compiled) });
      if (!given.known) return [unknownFinding(generatorLoading.id, context, subject, 'VA', given.missing)];
      const { inverter, capability } = given.value;
      const target = context.installation.defaults.generatorLoading.value;
      const limit = (one.deratedVa / one.type.lines) * target;
      // Lines that the set does not reach are not its load.
      return reached.map((index) => {
        const line = supply.lines[index] ?? 'L1';
        const charge = lineChargeW(compiled, inverter, capability, index);
        const chargeW = charge.known ? charge.value : 0;
        const power = add(board.continuous.knownPart[index] ?? ZERO, complex(chargeW, 0));
        return judge(generatorLoading.id, context, {
          subject: {
            ...subject,
            id: `${generator.id}/${line}`,
            label: `${generator.name} ${line}`,
            about: [
              { kind: 'generator', id: generator.id },
              { kind: 'supply-line', id: line },
            ],
          },
          value: magnitude(power),
          limit,
          unit: 'VA',
          missing: [...board.continuous.missing, ...(charge.known ? [] : charge.missing)],
          working: () => ({
            steps: [
              ...(charge.known
                ? [
                    {
                      symbol: 'S_gen',
                      meaning: 'load and charging on the line',
                      formula: '√((P + P_ch) · (P + P_ch) + Q · Q)',
                      symbols: [
                        symbol('P_ch', 'charging on this line', chargeW, 'W', [
                          'stacks',
                          compiled.stack.id,
                          'gridChargeW',
                        ]),
                        symbol(
                          'P',
                          `real power of the line, ${loadCaseWords(board)}`,
                          power.re - chargeW,
                          'W',
                        ),
                        symbol('Q', `reactive power of the line, ${loadCaseWords(board)}`, power.im, 'var'),
                      ],
                      value: magnitude(power),
                      unit: 'VA',
                    },
                  ]
                : []),
              {
                symbol: 'S_target',
                meaning: 'what the set should give on one line',
                formula: 'S_site / m · g',
                symbols: [
                  symbol('S_site', 'rating left at this altitude and heat', one.deratedVa, 'VA', [
                    'generators',
                    generator.id,
                    'typeId',
                  ]),
                  symbol('m', 'lines of the set', one.type.lines, ''),
                  symbol('g', 'loading target', target, ''),
                ],
                value: limit,
                unit: 'VA',
              },
            ],
            inputs: lineInputs(board, line),
            source: 'Load and charging together at most the loading target of the derated set, per line.',
            notes: overrideNotes(context.installation, 'generatorLoading'),
          }),
        });
      });
    }),
};
