import { all, field, known } from '../../values/known.ts';
import { formatQuantity } from '../../words/quantity.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import type { Path } from '../../values/problem.ts';
import type { PvArray } from '../../installation/facts.ts';
import { type Check, type Measurement, NO_WORKING, checkOf } from '../check.ts';
import { bankCount } from '../../installation/ownBank.ts';
import { bankOf } from '../support/bank.ts';
import { eachStack } from '../support/eachLine.ts';
import { stackSubject } from '../support/subjects.ts';
import { symbol } from '../support/workings.ts';

/** How what cannot be stored is held back, whether that will do, and what is not said of it. */
function heldBack(arrays: readonly PvArray[], type: InverterType) {
  const byFrequency = arrays.some((array) => array.curtailedBy === 'frequency');
  const bare = arrays.filter((array) => array.curtailedBy === 'none');
  const isDeaf = byFrequency && type.shiftsFrequency === 'none';
  const words = isDeaf
    ? 'frequency is meant to hold it back, but this inverter type does not shift it'
    : bare.length > 0
      ? `nothing holds back ${bare.map((array) => array.name).join(', ')} once the battery is full`
      : byFrequency
        ? 'a shift of frequency holds back the rest, all of it once the battery is full'
        : 'the rest is shed, all of it once the battery is full';
  const missing: Path[] = arrays
    .filter((array) => array.curtailedBy === undefined)
    .map((array) => ['arrays', array.id, 'curtailedBy']);
  if (byFrequency && type.shiftsFrequency === undefined) missing.push(['types', type.id, 'shiftsFrequency']);
  return { isHeld: bare.length === 0 && !isDeaf, words, missing };
}

/** AC-coupled power in island against what the battery can be charged with: the rest must be held back somehow. */
export const pvStorage: Check<'pv.storage'> = checkOf({
  id: 'pv.storage',
  title: 'AC-coupled PV against what can be stored',
  family: 'pv',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: {{value}} of AC-coupled PV, and {{stored}} can be stored; {{held}}. With little load the voltage would run away.',
    tight: '{{subject}}: {{value}} of AC-coupled PV, and {{stored}} can be stored; {{held}}.',
    within: '{{subject}}: {{value}} of AC-coupled PV of {{limit}} that can be stored; {{held}}.',
    unknown:
      '{{subject}}: what becomes of AC-coupled PV that cannot be stored is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(
      pvStorage.id,
      context,
      'W',
      ({ compiled, type, capability }): (Measurement<'held' | 'stored'> | undefined)[] => {
        const fed = new Set(compiled.partitions.map((partition) => partition.id));
        const arrays = context.installation.arrays
          .map(({ array }) => array)
          .filter(
            ({ coupling, partitionId }) =>
              coupling === 'ac' && partitionId !== undefined && fed.has(partitionId),
          );
        if (arrays.length === 0) return [];
        const bank = bankOf(compiled);
        const subject = stackSubject(compiled);
        const given = all({
          bank: bank ?? known(undefined),
          ratings: all(
            Object.fromEntries(
              arrays.map((array) => [array.id, field(array.ratedAcW, 'arrays', array.id, 'ratedAcW')]),
            ),
          ),
        });
        if (!given.known)
          return [
            {
              subject,
              value: undefined,
              limit: undefined,
              unit: 'W',
              missing: given.missing,
              working: () => NO_WORKING,
            },
          ];
        const value = Object.values(given.value.ratings).reduce((sum, one) => sum + one, 0);
        const volts = given.value.bank?.nominalV ?? 0;
        const chargeA = Math.min(
          bankCount(compiled.stack) * (given.value.bank?.chargeA ?? 0),
          capability.unitCount * type.maxChargeA,
        );
        const stored = (chargeA * volts) / type.efficiency;
        const fits = value <= stored;
        const { isHeld, words: held, missing } = heldBack(arrays, type);
        return [
          {
            subject,
            value,
            limit: stored,
            // A full battery stores nothing: even what fits must be held back then.
            tightMargin: fits && !isHeld ? 1 : 0,
            // Held back is as good as stored, but worth a second look.
            ...(isHeld ? { worst: 'tight' as const } : {}),
            unit: 'W',
            missing: isHeld ? missing : [],
            data: { held, stored: formatQuantity(stored, 'W') },
            working: () => ({
              steps: [
                {
                  symbol: 'P_store',
                  meaning: 'AC power that can be stored',
                  formula: 'I_ch · U / η',
                  symbols: [
                    symbol('I_ch', 'charge limit of bank and inverters', chargeA, 'A'),
                    symbol('U', 'nominal bank voltage', volts, 'V'),
                    symbol('η', 'inverter efficiency', type.efficiency, ''),
                  ],
                  value: stored,
                  unit: 'W',
                },
              ],
              inputs: arrays.map((array) => ({
                label: array.name,
                path: ['arrays', array.id, 'ratedAcW'],
                value: array.ratedAcW,
                unit: 'W',
              })),
              source: 'Rated AC power of the arrays against the charge limits, at a moment with no load.',
              notes: [held],
            }),
          },
        ];
      },
    ),
});
