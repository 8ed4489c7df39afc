import { feedsNothing } from '../../figures/capability/capability.ts';
import { all, field } from '../../values/known.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

/** Equipment that makes no AC in island says so: nothing may hang on it that is meant to stay on. */
export const stackOutlet: Check<'stack.outlet'> = checkOf({
  id: 'stack.outlet',
  title: 'Backs up by itself',
  family: 'stack',
  modes: ['island'],
  sentences: rulingSentences('whether it backs anything up'),
  run: (context) =>
    eachRuling(
      stackOutlet.id,
      context,
      'Backup outlet of the inverter type, and the arrangement.',
      stackSubject,
      ({ stack, type }) =>
        all({ type, arrangement: field(stack.arrangement, 'stacks', stack.id, 'arrangement') }),
      ({ partitions }, { type, arrangement }) => {
        if (!feedsNothing(arrangement, type)) return undefined;
        const why =
          arrangement === 'dc-side-box'
            ? 'it sits on the DC side and makes no AC of its own'
            : `${type.name} has no backup outlet`;
        return {
          reasons: partitions.map((one) => `${one.name} is fed by it, but ${why}: in island it is dark`),
          kept: `it backs up nothing by itself (${why}), and nothing is fed by it`,
        };
      },
    ),
});
