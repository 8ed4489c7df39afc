import { transferTime } from '../../figures/capability/transferTime.ts';
import { breaksIn } from '../../figures/loads/breaks.ts';
import { counted } from '../../words/quantity.ts';
import { type Check, checkOf } from '../check.ts';
import { eachStack } from '../support/eachLine.ts';
import { stackSubject } from '../support/subjects.ts';

/** Transfer time against the shortest break that something on the backup output can take. */
export const loadInterruption: Check<'load.interruption'> = checkOf({
  id: 'load.interruption',
  title: 'Transfer time against sensitive loads',
  family: 'load',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: the transfer takes {{value}}, but {{label}} takes a break of {{limit}} at most. {{count}} will see the break.',
    tight: '{{subject}}: the transfer takes {{value}}; {{label}} takes {{limit}}: {{margin}} left.',
    within: '{{subject}}: the transfer takes {{value}}; the most sensitive load, {{label}}, takes {{limit}}.',
    unknown: '{{subject}}: not known for every load what break it takes. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(loadInterruption.id, context, 'ms', ({ compiled, board, capability }) => {
      // What carries nothing in island transfers nothing.
      if (!capability.carries || board.circuits.length === 0) return [];
      const time = transferTime(compiled);
      const transferMs = time.known ? time.value.ms : undefined;
      const breaks = breaksIn(board.circuits);
      const missing = [...(time.known ? [] : time.missing), ...breaks.missing];
      const broken = transferMs === undefined ? [] : breaks.below(transferMs);
      const found = breaks.shortest;
      if (found === undefined && missing.length === 0) return [];
      return [
        {
          subject: stackSubject(compiled),
          value: transferMs,
          limit: found?.ms,
          unit: 'ms',
          missing,
          data: { label: found?.label ?? 'no load', count: counted(broken.length, 'load') },
          working: () => ({
            steps: [],
            inputs:
              found === undefined
                ? []
                : [{ label: found.label, path: found.path, value: found.ms, unit: 'ms' }],
            source:
              'Transfer time of the inverters, or of the transfer device where that is slower; longest interruption typed for each item.',
            notes: [
              ...(time.known ? [`Transfer time of ${time.value.setBy}: ${time.value.ms} ms.`] : []),
              ...(broken.length > 0
                ? [
                    `${counted(broken.length, 'load')} cannot take a break as long as the transfer.`,
                    ...broken.map(({ label, ms }) => `${label}: ${ms} ms`),
                  ]
                : []),
            ],
          }),
        },
      ];
    }),
});
