import { MODE_KINDS } from '../../installation/modeKinds.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import { labelOf, onNetwork, pathWords, refsOf } from '../support/network.ts';

/** Sources that meet on one network must be held in step by what joins them. */
export const bondingJoinedSources: Check<'bonding.joined-sources'> = checkOf({
  id: 'bonding.joined-sources',
  title: 'Sources joined in step',
  family: 'bonding',
  modes: MODE_KINDS,
  sentences: {
    over: '{{subject}} are joined and nothing keeps them in step. The way: {{way}}.',
    tight: '{{subject}} are joined.',
    within: '{{subject}} that run together are kept in step.',
    unknown: '{{subject}}: whether they are joined is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(bondingJoinedSources.id, context, ({ network, facts }) => {
      const working = (notes: readonly string[]) => () => ({
        ...NO_WORKING,
        source:
          'Inverters of one set, an inverter and the grid or generator it follows, and sets under one controller are in step. All else that meets is not.',
        notes,
      });
      const shared = { unit: '', limit: 0, graded: false } as const;
      if (facts.clashes.length === 0)
        return facts.running.length < 2
          ? []
          : [
              judge(bondingJoinedSources.id, context, {
                ...shared,
                subject: { kind: 'part', id: 'sources', label: 'Sources' },
                value: 0,
                data: { way: '' },
                working: working(facts.running.map((id) => `Runs: ${labelOf(network, id)}.`)),
              }),
            ];
      return facts.clashes.map(({ sources, path, missing }) => {
        const way = pathWords(network, path);
        return judge(bondingJoinedSources.id, context, {
          ...shared,
          subject: {
            kind: 'part',
            id: sources.join(' '),
            label: `${labelOf(network, sources[0])} and ${labelOf(network, sources[1])}`,
            about: refsOf(network, path),
          },
          value: missing.length > 0 ? 0 : 1,
          missing,
          data: { way },
          working: working([`The way: ${way}.`]),
        });
      });
    }),
});
