import { openPlaces } from '../../installation/openPlaces.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';

/** Circuits that nobody has placed, and partitions behind a set that no set feeds: their load is in no limit yet. */
export const loadAssigned: Check<'load.assigned'> = checkOf({
  id: 'load.assigned',
  title: 'Every circuit has its place',
  family: 'load',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{value}} circuits have no place.',
    tight: '{{subject}}: {{value}} circuits have no place.',
    within: 'Every circuit is on the grid side or on a backup output.',
    unknown: '{{subject}}: not placed yet, so in no limit of the backup output: {{missing}}.',
  },
  run: (context) => {
    if (context.installation.circuits.length === 0) return [];
    const missing = openPlaces(context.installation);
    return [
      judge(loadAssigned.id, context, {
        subject: { kind: 'design', id: 'design', label: 'Circuits' },
        value: missing.length,
        limit: 0,
        unit: '',
        // A circuit without a place is not a failure: it is not known. "At least" keeps it from being judged over.
        bound: 'at-least',
        graded: false,
        missing,
        working: () => NO_WORKING,
      }),
    ];
  },
});
