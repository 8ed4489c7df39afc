import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';

/** Things that arrived damaged, or did not arrive, stop the work before it begins. */
export const placeDelivery: Check<'place.delivery'> = checkOf({
  id: 'place.delivery',
  title: 'Delivery and preparation',
  family: 'place',
  modes: 'once',
  sentences: {
    over: '{{subject}} {{state}}{{note}}.',
    tight: '{{subject}} is there.',
    within: '{{subject}} is there.',
    unknown: '{{subject}}: nobody has looked at it. Missing: {{missing}}.',
  },
  run: (context) =>
    context.installation.delivered.map(({ id, what, state, note }) =>
      judge(placeDelivery.id, context, {
        subject: { kind: 'place', id: `delivery ${id}`, label: what },
        value: 1,
        limit: 0,
        unit: '',
        graded: false,
        data: {
          state: state === 'damaged' ? 'is damaged' : 'is missing',
          note: note === undefined ? '' : `: ${note}`,
        },
        working: () => ({
          ...NO_WORKING,
          source: 'As ticked on the delivery list.',
          inputs: [{ label: what, path: ['delivery', id], value: undefined, unit: '' }],
        }),
      }),
    ),
});
