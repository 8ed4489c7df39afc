import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import { labelOf, onNetwork, pathWords, refsOf } from '../support/network.ts';

/** The grid's terminals while the grid is away: nothing inside may make them live. */
export const bondingBackFeed: Check<'bonding.back-feed'> = checkOf({
  id: 'bonding.back-feed',
  title: 'No back-feed into the grid',
  family: 'bonding',
  modes: ['island', 'generator-port', 'transfer-switch', 'generator-inlet', 'unit-lost'],
  sentences: {
    over: '{{subject}} are live from {{source}} while the grid is away: somebody may be working on that line. The way: {{way}}.',
    tight: '{{subject}} are live from {{source}}.',
    within: '{{subject}} are dead while the grid is away.',
    unknown: '{{subject}}: whether they are live from inside is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(bondingBackFeed.id, context, ({ network, facts }) => {
      const grid = network.sources.find(({ kind }) => kind === 'grid');
      if (grid === undefined) return [];
      const { backFeed } = facts;
      const way = pathWords(network, backFeed?.path ?? []);
      return [
        judge(bondingBackFeed.id, context, {
          subject: {
            kind: 'part',
            id: grid.partId,
            label: 'The grid terminals',
            about: refsOf(network, backFeed?.path ?? []),
          },
          value: backFeed === undefined || backFeed.missing.length > 0 ? 0 : 1,
          limit: 0,
          unit: '',
          graded: false,
          missing: backFeed?.missing ?? [],
          data: { source: backFeed === undefined ? '' : labelOf(network, backFeed.source), way },
          working: () => ({
            ...NO_WORKING,
            source:
              'From each source that runs in this mode every closed contact is followed; the grid terminals must not be met.',
            notes: way === '' ? ['No source that runs reaches them.'] : [`The way: ${way}.`],
          }),
        }),
      ];
    }),
});
