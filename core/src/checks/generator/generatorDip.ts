import { stepFrequencyFall, stepVoltage } from '../../figures/generator/stepDip.ts';
import { magnitude, ZERO } from '../../network/complex.ts';
import { formatNumber, formatQuantity } from '../../words/quantity.ts';
import { type Check, judge, checkOf } from '../check.ts';
import { eachGenerator } from '../support/generators.ts';
import { lineInputs, loadCaseWords, symbol } from '../support/workings.ts';

/** Voltage of a generator while it takes the load at once at transfer, above what a start needs and most loads ride through. */
export const generatorDip: Check<'generator.dip'> = checkOf({
  id: 'generator.dip',
  title: 'Voltage while the generator takes the load',
  family: 'generator',
  modes: ['generator-port', 'transfer-switch'],
  sentences: {
    over: '{{subject}} falls to {{value}} of its voltage{{hertz}} as it takes {{step}} at once; below {{limit}} starts stall and contactors drop.{{recovery}} Bring the load on in stages.',
    tight:
      '{{subject}} falls to {{value}} of its voltage{{hertz}} as it takes {{step}} at once; {{limit}} is needed.{{recovery}}',
    within:
      '{{subject}} falls to {{value}} of its voltage{{hertz}} as it takes {{step}} at once; {{limit}} is needed.{{recovery}}',
    unknown: '{{subject}}: how far its voltage falls at transfer is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachGenerator(generatorDip.id, context, 'fraction', (one) => {
      const { board, type, rating, reached, generator, subject } = one;
      const { transientReactance } = type;
      // Most data sheets leave it out: the largest step that they state is held by a check of its own.
      if (transientReactance === undefined) return [];
      const vaOf = (index: number): number => magnitude(board.continuous.knownPart[index] ?? ZERO);
      const stepVa = Math.max(0, ...reached.map(vaOf));
      const wholeW = reached.reduce((sum, index) => sum + (board.continuous.knownPart[index]?.re ?? 0), 0);
      const value = stepVoltage(transientReactance, stepVa / rating.perLineVa);
      const fall = rating.engineW.known ? stepFrequencyFall(type, wholeW / rating.engineW.value) : undefined;
      const hertz = context.installation.site.frequencyHz;
      return [
        judge(generatorDip.id, context, {
          subject,
          value,
          limit: context.installation.defaults.startVoltage.value,
          unit: 'fraction',
          bound: 'at-least',
          missing: board.continuous.missing,
          data: {
            step: formatQuantity(stepVa, 'VA'),
            hertz:
              fall === undefined || hertz === undefined
                ? ''
                : ` and to ${formatNumber(Math.round(hertz * (1 - fall) * 10) / 10)} Hz`,
            recovery:
              type.recoveryS === undefined ? '' : ` It is back within ${formatNumber(type.recoveryS)} s.`,
          },
          working: () => ({
            steps: [
              {
                symbol: 'U',
                meaning: 'voltage in the first moments, as a share of its own',
                formula: '1 / (1 + x · S_step / S_line)',
                symbols: [
                  symbol('x', 'transient reactance of the type', transientReactance, '', [
                    'generators',
                    generator.id,
                    'typeId',
                  ]),
                  symbol('S_step', `${loadCaseWords(board)} of the hardest line, at once`, stepVa, 'VA'),
                  symbol(
                    'S_line',
                    'rating of the alternator on one line at this site',
                    rating.perLineVa,
                    'VA',
                  ),
                ],
                value,
                unit: 'fraction',
              },
            ],
            inputs: lineInputs(board, undefined),
            source:
              'The load as an impedance behind the transient reactance, both in line: the worst case. Frequency in proportion to the step that the type states.',
            notes: [],
          }),
        }),
      ];
    }),
});
