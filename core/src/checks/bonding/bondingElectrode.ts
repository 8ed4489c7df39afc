import type { Site } from '../../installation/facts.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import { rulingSentences } from '../support/reasons.ts';

/** Why a site needs an electrode of its own; undefined where it does not. */
function reasonFor({ earthing, utilityEarth, grid }: Site): string | undefined {
  if (grid === 'none') return 'there is no grid to bring an earth';
  if (utilityEarth === 'may-be-lost') return 'the earth of the utility may be lost in island';
  if (utilityEarth === 'kept') return undefined;
  if (earthing === 'TN-C-S')
    return 'the earth comes with the combined neutral of the utility, which may be lost in island';
  return earthing === 'TT' || earthing === 'IT'
    ? `a ${earthing} site has an electrode of its own`
    : undefined;
}

/** Where the earth of the utility may be lost, a local electrode with a measured resistance stands in for it. */
export const bondingElectrode: Check<'bonding.electrode'> = checkOf({
  id: 'bonding.electrode',
  title: 'Local earth electrode',
  family: 'bonding',
  modes: 'once',
  sentences: rulingSentences('the local electrode'),
  run: (context) => {
    const { site, stacks } = context.installation;
    const reason = reasonFor(site);
    if (stacks.length === 0 || reason === undefined) return [];
    const { localElectrode, electrodeOhm } = site;
    const missing = [
      ...(localElectrode === undefined ? [['site', 'localElectrode']] : []),
      ...(localElectrode === 'yes' && electrodeOhm === undefined ? [['site', 'electrodeOhm']] : []),
    ];
    return [
      judge(bondingElectrode.id, context, {
        subject: { kind: 'design', id: 'electrode', label: 'Local electrode' },
        value: localElectrode === 'none' ? 1 : 0,
        limit: 0,
        unit: '',
        graded: false,
        missing,
        data: {
          reason: `there is none, and ${reason}`,
          kept: `it is there, measured at ${electrodeOhm ?? ''} Ω. What resistance is low enough, local rules say`,
        },
        working: () => ({
          ...NO_WORKING,
          source:
            'An earth that may be lost in island is replaced by an electrode of the site, whose resistance is measured.',
          notes: [`It is wanted because ${reason}.`],
          inputs: [
            { label: 'measured resistance', path: ['site', 'electrodeOhm'], value: electrodeOhm, unit: 'Ω' },
          ],
        }),
      }),
    ];
  },
});
