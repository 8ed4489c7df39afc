import { field } from '../../values/known.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import { eachGenerator } from '../support/generators.ts';

const HELD: Record<string, string> = {
  disconnected: 'disconnected',
  'proven-curtailed': 'curtailed, as proven by test',
  stays: 'left on',
};

/** AC-coupled generation on the backed-up side must not push power into a running generator. */
export const generatorPv: Check<'generator.pv'> = checkOf({
  id: 'generator.pv',
  title: 'AC-coupled PV while the generator runs',
  family: 'generator',
  modes: ['generator-port', 'transfer-switch'],
  sentences: {
    over: '{{subject}}: {{names}} stays on while the set runs. It would drive the set backwards: disconnect it, or prove that it is curtailed.',
    tight: '{{subject}}: {{names}} is {{held}}.',
    within: '{{subject}}: {{names}} is {{held}} while the set runs.',
    unknown: '{{subject}}: what becomes of AC-coupled PV is not said. Missing: {{missing}}.',
  },
  run: (context) =>
    eachGenerator(generatorPv.id, context, '', ({ subject, compiled }) => {
      const fed = new Set(compiled.partitions.map((partition) => partition.id));
      const arrays = context.installation.arrays
        .map(({ array }) => array)
        .filter(
          ({ coupling, partitionId }) =>
            coupling === 'ac' && partitionId !== undefined && fed.has(partitionId),
        );
      if (arrays.length === 0) return [];
      const staying = arrays.filter((array) => array.withGenerator === 'stays');
      const named = staying.length > 0 ? staying : arrays;
      return judge(generatorPv.id, context, {
        subject,
        value: staying.length,
        limit: 0,
        unit: '',
        graded: false,
        missing: arrays.flatMap((array) => {
          const said = field(array.withGenerator, 'arrays', array.id, 'withGenerator');
          return said.known ? [] : said.missing;
        }),
        data: {
          names: named.map((array) => array.name).join(', '),
          held: [...new Set(arrays.map((array) => HELD[array.withGenerator ?? ''] ?? ''))].join(' or '),
        },
        working: () => ({
          ...NO_WORKING,
          source: 'What is stated for each AC-coupled array on the backed-up boards of this set.',
        }),
      });
    }),
});
