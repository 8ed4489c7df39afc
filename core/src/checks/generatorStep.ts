import { all, unknownAt } from '../design/known.ts';
import { add, magnitude, ZERO } from '../network/complex.ts';
import { type Check, judge, unknownFinding } from './check.ts';
import type { Finding, Subject } from './finding.ts';
import { lineInputs, loadCaseWords, symbol } from './support/workings.ts';

/** The load that a generator takes at once at transfer, against the largest step its type accepts. */
export const generatorStep: Check = {
  id: 'generator.step',
  title: 'Load step on the generator',
  family: 'generator',
  modes: ['generator-port', 'transfer-switch'],
  sentences: {
    over: '{{subject}} takes {{value}} at once at transfer and accepts {{limit}}: over by {{margin}}. Bring the load on in stages.',
    tight: '{{subject}} takes {{value}} at once of {{limit}} it accepts: {{margin}} left.',
    within: '{{subject}} takes {{value}} at once of {{limit}} it accepts: {{margin}} left.',
    unknown: '{{subject}}: the load step cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    context.installation.generators
      .filter(({ generator }) => generator.connection === context.mode.kind)
      .map(({ generator, type, deratedVa }): Finding => {
        const subject: Subject = { kind: 'generator', id: generator.id, label: generator.name };
        const compiled = context.installation.stacks.find((one) => one.stack.id === generator.stackId);
        const given = all({
          type,
          deratedVa,
          board:
            compiled === undefined
              ? unknownAt(['generators', generator.id, 'stackId'])
              : compiled.generatorBoard,
        });
        if (!given.known) return unknownFinding(generatorStep.id, context, subject, 'VA', given.missing);
        const { board } = given.value;
        const step = given.value.type.largestStep;
        // What a set reaches with fewer lines than the board has is a part of the load only.
        const power = board.continuous.knownPart.slice(0, given.value.type.lines).reduce(add, ZERO);
        return judge(generatorStep.id, context, {
          subject,
          value: magnitude(power),
          limit: step === undefined ? undefined : given.value.deratedVa * step,
          unit: 'VA',
          missing: [
            ...board.continuous.missing,
            ...(step === undefined ? [['types', given.value.type.id, 'largestStep']] : []),
          ],
          working: () => ({
            steps:
              step === undefined
                ? []
                : [
                    {
                      symbol: 'S_step',
                      meaning: 'largest step of the set at this site',
                      formula: 'S_site · s',
                      symbols: [
                        symbol(
                          'S_site',
                          'rating left at this altitude and heat',
                          given.value.deratedVa,
                          'VA',
                          ['generators', generator.id, 'typeId'],
                        ),
                        symbol('s', 'largest step of the type, as a share of its rating', step, ''),
                      ],
                      value: given.value.deratedVa * step,
                      unit: 'VA',
                    },
                  ],
            inputs: lineInputs(board, undefined),
            source: `The ${loadCaseWords(board)} is taken over at once; charging comes up slowly after it.`,
            notes: [],
          }),
        });
      }),
};
