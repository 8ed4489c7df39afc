import { chargeKeyOf, lineChargeW } from '../../figures/capability/acCharge.ts';
import { capabilityWithout } from '../../figures/capability/capability.ts';
import { all, type Known } from '../../values/known.ts';
import { add, complex, magnitude, ZERO } from '../../network/complex.ts';
import { type Check, type CheckContext, judge, unknownFinding, checkOf } from '../check.ts';
import type { Found, WorkingSymbol } from '../finding.ts';
import { type GeneratorCase, eachGenerator, engineSubject } from '../support/generators.ts';
import { lineInputs, loadCaseWords, overrideNotes, symbol } from '../support/workings.ts';

/** Charging that one line of a set gives. */
type ChargeOn = (line: number) => Known<number>;

const chargeSymbol = ({ compiled, generator }: GeneratorCase, watts: number, where: string): WorkingSymbol =>
  symbol('P_ch', `charging ${where}`, watts, 'W', [
    'stacks',
    compiled.stack.id,
    chargeKeyOf(generator.connection ?? ''),
  ]);

/** The alternator: apparent power of one line against its share of the set. */
function alternator(context: CheckContext, one: GeneratorCase, index: number, chargeOn: ChargeOn): Found {
  const { subject, generator, supply, board, rating } = one;
  const target = context.installation.defaults.generatorLoading.value;
  const line = supply.lines[index] ?? 'L1';
  const charge = chargeOn(index);
  const chargeW = charge.known ? charge.value : 0;
  const power = add(board.continuous.knownPart[index] ?? ZERO, complex(chargeW, 0));
  const limit = rating.perLineVa * target;
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
                  chargeSymbol(one, chargeW, 'on this line'),
                  symbol('P', `real power of the line, ${loadCaseWords(board)}`, power.re - chargeW, 'W'),
                  symbol('Q', `reactive power of the line, ${loadCaseWords(board)}`, power.im, 'var'),
                ],
                value: magnitude(power),
                unit: 'VA',
              },
            ]
          : []),
        {
          symbol: 'S_target',
          meaning: 'what the alternator should give on one line',
          formula: 'S_site / m · g',
          symbols: [
            symbol('S_site', 'rating left at this altitude and heat', rating.wholeVa, 'VA', [
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
      source: 'Load and charging together at most the loading target of the derated alternator, per line.',
      notes: overrideNotes(context.installation, 'generatorLoading'),
    }),
  });
}

/** The engine: real power of all lines that the set reaches against its own rating. */
function engine(context: CheckContext, one: GeneratorCase, chargeOn: ChargeOn): Found {
  const { board, rating, reached } = one;
  const target = context.installation.defaults.generatorLoading.value;
  const charge = all(Object.fromEntries(reached.map((line) => [line, chargeOn(line)])));
  const chargeW = charge.known ? Object.values(charge.value).reduce((sum, watts) => sum + watts, 0) : 0;
  const loadW = reached.reduce((sum, line) => sum + (board.continuous.knownPart[line]?.re ?? 0), 0);
  const { engineW } = rating;
  return judge(generatorLoading.id, context, {
    subject: engineSubject(one),
    value: loadW + chargeW,
    limit: engineW.known ? engineW.value * target : undefined,
    unit: 'W',
    missing: [
      ...board.continuous.missing,
      ...(charge.known ? [] : charge.missing),
      ...(engineW.known ? [] : engineW.missing),
    ],
    working: () => ({
      steps: [
        ...(charge.known
          ? [
              {
                symbol: 'P_gen',
                meaning: 'load and charging of all its lines',
                formula: 'P + P_ch',
                symbols: [
                  chargeSymbol(one, chargeW, 'on all its lines'),
                  symbol('P', `real power of its lines, ${loadCaseWords(board)}`, loadW, 'W'),
                ],
                value: loadW + chargeW,
                unit: 'W',
              },
            ]
          : []),
        ...(engineW.known
          ? [
              {
                symbol: 'P_target',
                meaning: 'what the engine should give in all',
                formula: 'P_site · g',
                symbols: [
                  symbol('P_site', 'rated VA times power factor, left at this site', engineW.value, 'W', [
                    'generators',
                    one.generator.id,
                    'typeId',
                  ]),
                  symbol('g', 'loading target', target, ''),
                ],
                value: engineW.value * target,
                unit: 'W',
              },
            ]
          : []),
      ],
      inputs: lineInputs(board, undefined),
      source: 'An engine gives rated VA times rated power factor in W, whatever the lines.',
      notes: overrideNotes(context.installation, 'generatorLoading'),
    }),
  });
}

/** Backed-up load and charging against both ratings of a set: its alternator line by line, and its engine in all. */
export const generatorLoading: Check<'generator.loading'> = checkOf({
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
    eachGenerator(generatorLoading.id, context, 'VA', (one): Found[] => {
      const { subject, compiled, generator } = one;
      const given = all({ inverter: compiled.type, capability: capabilityWithout(compiled) });
      if (!given.known) return [unknownFinding(generatorLoading.id, context, subject, 'VA', given.missing)];
      const { inverter, capability } = given.value;
      const key = chargeKeyOf(generator.connection ?? '');
      const chargeOn: ChargeOn = (line) => lineChargeW(compiled, inverter, capability, line, key);
      // Lines that the set does not reach are not its load.
      return [
        ...one.reached.map((line) => alternator(context, one, line, chargeOn)),
        engine(context, one, chargeOn),
      ];
    }),
});
