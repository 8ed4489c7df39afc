import { type Check, checkOf } from '../check.ts';
import { eachSurgePlace, surgeMeasurement } from '../support/surge.ts';

/** Pickup after a long break, with the start delays of the design. Stands in for cold pickup where there are delays. */
export const surgeStaggered: Check<'surge.staggered'> = checkOf({
  id: 'surge.staggered',
  title: 'Staggered pickup',
  family: 'surge',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: with the start delays, pickup takes {{value}} for {{needed}}; {{limit}} is allowed for that long: over by {{margin}}. Lengthen or reorder the delays.',
    tight:
      '{{subject}}: with the start delays, pickup takes {{value}} for {{needed}} of {{limit}} allowed: {{margin}} left.',
    within:
      '{{subject}}: with the start delays, pickup takes {{value}} for {{needed}} of {{limit}} allowed: {{margin}} left.',
    unknown: '{{subject}}: staggered pickup is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSurgePlace(surgeStaggered.id, context, (place) => {
      const { board } = place.one;
      if (!board.isStaggered) return undefined;
      const { missing } = board.staggered;
      if (place.staggered.length === 0 && missing.length === 0) return undefined;
      const delayed = board.circuits.filter((circuit) => (circuit.startDelayS ?? 0) > 0);
      return surgeMeasurement(context, place, place.staggered, 'each stage', missing, [
        `Delays: ${delayed.map((circuit) => `${circuit.name} ${String(circuit.startDelayS)} s`).join(', ')}.`,
        'What stands behind a delay is dark until its moment and then starts in full, without its demand factor.',
      ]);
    }),
});
