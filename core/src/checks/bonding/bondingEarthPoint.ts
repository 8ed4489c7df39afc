import type { EarthPoint } from '../../installation/facts.ts';
import type { Installation } from '../../installation/installation.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import { rulingSentences } from '../support/reasons.ts';

type Earth = EarthPoint['joins'][number];

const EARTH_WORDS: Readonly<Record<Earth, string>> = {
  'grid-earth': 'grid earth',
  'backed-up-earth': 'backed-up earth',
  chassis: 'the chassis of the inverters',
  electrode: 'the local electrode',
  'generator-frame': 'the generator frame',
};

/** What has to be joined at the earthing point of an installation. */
export const wantedEarths = ({ site, generators }: Installation): readonly Earth[] => [
  'chassis',
  'backed-up-earth',
  ...(site.grid === 'none' ? [] : (['grid-earth'] as const)),
  ...(site.localElectrode === 'yes' ? (['electrode'] as const) : []),
  ...(generators.length > 0 ? (['generator-frame'] as const) : []),
];

/** Chassis, backed-up earth and grid earth share one earthing point. */
export const bondingEarthPoint: Check<'bonding.earth-point'> = checkOf({
  id: 'bonding.earth-point',
  title: 'One earthing point',
  family: 'bonding',
  modes: 'once',
  sentences: rulingSentences('where the earths are joined'),
  run: (context) => {
    const { installation } = context;
    if (installation.stacks.length === 0) return [];
    const { earthPoints } = installation;
    const wanted = wantedEarths(installation);
    const main = [...earthPoints].sort((a, b) => b.joins.length - a.joins.length)[0];
    const apart = wanted.filter((earth) => main?.joins.includes(earth) !== true);
    const reasons = [
      ...(earthPoints.length > 1
        ? [`${earthPoints.length} earthing points, where everything belongs on one`]
        : []),
      ...apart.map((earth) => `${EARTH_WORDS[earth]} is not joined at ${main?.name ?? 'the earthing point'}`),
    ];
    return [
      judge(bondingEarthPoint.id, context, {
        subject: { kind: 'design', id: 'earthing', label: 'Earthing' },
        value: main === undefined ? undefined : reasons.length,
        limit: 0,
        unit: '',
        graded: false,
        missing: main === undefined ? [['earthPoints']] : [],
        data: { reason: reasons.join('; '), kept: `all earths are joined at ${main?.name ?? ''}` },
        working: () => ({
          ...NO_WORKING,
          source: 'One earthing point for frame, backed-up earth and grid earth, and what else is earthed.',
          notes: reasons,
          inputs: earthPoints.map(({ id, name }) => ({
            label: name,
            path: ['earthPoints', id],
            value: undefined,
            unit: '',
          })),
        }),
      }),
    ];
  },
});
