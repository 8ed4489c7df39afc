import { field, all } from '../../values/known.ts';
import { type Check, checkOf } from '../check.ts';
import { eachStack } from '../support/eachLine.ts';
import { stackSubject } from '../support/subjects.ts';
import { symbol } from '../support/workings.ts';

/** A roof on the backed-up side must not be larger than the set that has to take its power in island. */
export const pvAcCoupled: Check<'pv.ac-coupled'> = checkOf({
  id: 'pv.ac-coupled',
  title: 'AC-coupled PV in island',
  family: 'pv',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: {{value}} of AC-coupled PV on the backed-up side; the set takes {{limit}}: over by {{margin}}.',
    tight: '{{subject}}: {{value}} of AC-coupled PV of {{limit}} the set takes: {{margin}} left.',
    within: '{{subject}}: {{value}} of AC-coupled PV of {{limit}} the set takes: {{margin}} left.',
    unknown: '{{subject}}: AC-coupled PV cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(pvAcCoupled.id, context, 'W', ({ compiled, capability }) => {
      const fed = new Set(compiled.partitions.map((partition) => partition.id));
      const arrays = context.installation.arrays
        .map(({ array }) => array)
        .filter(
          (array) => array.coupling === 'ac' && array.partitionId !== undefined && fed.has(array.partitionId),
        );
      if (arrays.length === 0) return [];
      const ratings = all(
        Object.fromEntries(
          arrays.map((array) => [array.id, field(array.ratedAcW, 'arrays', array.id, 'ratedAcW')]),
        ),
      );
      const value = arrays.reduce((sum, array) => sum + (array.ratedAcW ?? 0), 0);
      return [
        {
          subject: stackSubject(compiled),
          value,
          limit: capability.totalVa,
          unit: 'W',
          missing: ratings.known ? [] : ratings.missing,
          working: () => ({
            steps: [
              {
                symbol: 'S_total',
                meaning: 'usable capacity of the set',
                formula: 'S_total',
                symbols: [symbol('S_total', 'usable capacity of the set', capability.totalVa, 'VA')],
                value: capability.totalVa,
                unit: 'VA',
              },
            ],
            inputs: arrays.map((array) => ({
              label: array.name,
              path: ['arrays', array.id, 'ratedAcW'],
              value: array.ratedAcW,
              unit: 'W',
            })),
            source: 'Rated AC power of the AC-coupled arrays on backed-up boards against the stack.',
            notes: ['In generator modes AC-coupled PV must be disconnected.'],
          }),
        },
      ];
    }),
});
