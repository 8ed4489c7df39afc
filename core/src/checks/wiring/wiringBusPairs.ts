import { isBusPair, type LinkFigure } from '../../figures/comms/linkFigures.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import { eachLink, linkSubject } from '../support/links.ts';

/** What is wrong about the pair of a bus, as it is made or as its cable makes it. */
function faultsOf({ link, wired, straight, isSplit }: LinkFigure): string[] {
  const isStraight = wired?.cable === 'network' || wired?.cable === 'supplied';
  const isMadeStraight = isStraight || wired?.polarity === 'straight';
  const { a, b } = link;
  return [
    ...(wired?.polarity === 'swapped' ? ['its + and − are exchanged between the ends'] : []),
    ...(isStraight && straight === 'exchanged'
      ? [`a straight cable leads + (pin ${a.pins?.plus ?? ''}) to − (pin ${b.pins?.minus ?? ''})`]
      : []),
    ...(isStraight && straight === 'elsewhere'
      ? [
          `a straight cable leads pins ${a.pins?.plus ?? ''} and ${a.pins?.minus ?? ''} to where ${b.pins?.plus ?? ''} and ${b.pins?.minus ?? ''} are wanted`,
        ]
      : []),
    ...(wired?.pairs === 'bunched'
      ? ['cores of several pairs are bunched: nothing is twisted with itself']
      : []),
    ...(isMadeStraight && isSplit
      ? [`its pins ${a.pins?.plus ?? ''} and ${a.pins?.minus ?? ''} lie in two pairs of a network cable`]
      : []),
  ];
}

/** One twisted pair for one bus, its polarity kept from end to end, its shield earthed at one end. */
export const wiringBusPairs: Check<'wiring.bus-pairs'> = checkOf({
  id: 'wiring.bus-pairs',
  title: 'Pairs and polarity of buses',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{reason}}.',
    tight: '{{subject}}: {{reason}}.',
    within: '{{subject}}: one pair, its polarity kept.',
    unknown: '{{subject}}: its pairs are not known. Missing: {{missing}}.',
  },
  run: (context) =>
    eachLink(wiringBusPairs.id, context, (figure) => {
      const { wired } = figure;
      if (wired === undefined || !isBusPair(figure.link)) return [];
      const faults = faultsOf(figure);
      const shield =
        wired.shield === 'both-ends'
          ? 'its shield is earthed at both ends: a current of the building flows on it'
          : wired.shield === 'neither'
            ? 'its shield is earthed nowhere and shields nothing'
            : undefined;
      const reasons = [...faults, ...(shield === undefined ? [] : [shield])];
      return [
        judge(wiringBusPairs.id, context, {
          subject: linkSubject(context, figure),
          value: reasons.length,
          limit: 0,
          unit: '',
          graded: false,
          ...(faults.length === 0 ? { worst: 'tight' as const } : {}),
          data: { reason: reasons.join('; ') },
          working: () => ({
            ...NO_WORKING,
            inputs: [
              { label: 'As it is made', path: ['wiring', 'links', wired.id], value: undefined, unit: '' },
            ],
            source:
              'A balanced bus wants one twisted pair, + to + and − to −; a shield is earthed at one end.',
          }),
        }),
      ];
    }),
});
