import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import { onNetwork, refsOf } from '../support/network.ts';

/** Two positions that must never be closed together are held apart by the switch itself. */
export const bondingInterlock: Check<'bonding.interlock'> = checkOf({
  id: 'bonding.interlock',
  title: 'Interlocks',
  family: 'bonding',
  modes: 'once',
  sentences: {
    over: '{{subject}} are not interlocked: two sources could be joined by hand.',
    tight: '{{subject}} are interlocked.',
    within: '{{subject}} can never be closed together.',
    unknown: '{{subject}}: whether they are interlocked is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(bondingInterlock.id, context, ({ network }) =>
      network.interlocks.map(({ partId, what, held, from }) =>
        judge(bondingInterlock.id, context, {
          subject: {
            kind: 'part',
            id: partId,
            label: what.charAt(0).toUpperCase() + what.slice(1),
            about: refsOf(network, [partId]),
          },
          value: held.known && held.value ? 0 : 1,
          limit: 0,
          unit: '',
          graded: false,
          missing: held.known ? [] : held.missing,
          // What is not known is not yet broken.
          ...(held.known ? {} : { bound: 'at-least' as const }),
          working: () => ({
            ...NO_WORKING,
            source: 'As the type of the switch, or the site, states it.',
            inputs: [{ label: what, path: from, value: undefined, unit: '' }],
          }),
        }),
      ),
    ),
});
