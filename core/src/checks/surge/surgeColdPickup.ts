import { type Check, checkOf } from '../check.ts';
import { eachSurgePlace, surgeMeasurement } from '../support/surge.ts';

/** After a break longer than the loads ride through, everything that starts, starts together. */
export const surgeColdPickup: Check<'surge.cold-pickup'> = checkOf({
  id: 'surge.cold-pickup',
  title: 'Cold pickup',
  family: 'surge',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: everything starting together takes {{value}} for {{needed}}; {{limit}} is allowed for that long: over by {{margin}}. Stage the starts or shed before a black start.',
    tight:
      '{{subject}}: everything starting together takes {{value}} for {{needed}} of {{limit}} allowed: {{margin}} left.',
    within:
      '{{subject}}: everything starting together takes {{value}} for {{needed}} of {{limit}} allowed: {{margin}} left.',
    unknown: '{{subject}}: cold pickup is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSurgePlace(surgeColdPickup.id, context, (place) => {
      const { missing } = place.one.board.coldPickup;
      // With start delays in the design, not everything starts together: the staggered check stands in.
      if (place.one.board.isStaggered) return undefined;
      if (place.coldPickup.length === 0 && missing.length === 0) return undefined;
      return surgeMeasurement(context, place, place.coldPickup, 'everything', missing, [
        'Diversity is lost after a long break: items that start count in full, without their demand factor.',
      ]);
    }),
});
