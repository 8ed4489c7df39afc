import type { Path } from '../../values/problem.ts';
import { counted } from '../../words/quantity.ts';
import type { Check } from '../check.ts';
import { eachStack } from '../support/eachLine.ts';
import { stackSubject } from '../support/subjects.ts';

/** Transfer time against the shortest break that something on the backup output can take. */
export const loadInterruption: Check<'load.interruption'> = {
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
    eachStack(loadInterruption.id, context, 'ms', ({ compiled, board, type }) => {
      const missing: Path[] = type.transferMs === undefined ? [['types', type.id, 'transferMs']] : [];
      let shortest: { ms: number; label: string; path: Path } | undefined;
      const broken: string[] = [];
      for (const circuit of board.circuits) {
        if (circuit.items.length === 0) missing.push(['circuits', circuit.id, 'items']);
        for (const item of circuit.items) {
          const path = ['circuits', circuit.id, 'items', item.id, 'longestInterruptionMs'];
          const ms = item.longestInterruptionMs;
          if (ms === undefined) {
            missing.push(path);
            continue;
          }
          if (type.transferMs !== undefined && ms < type.transferMs)
            broken.push(`${item.name} (${circuit.name}): ${ms} ms`);
          if (shortest === undefined || ms < shortest.ms)
            shortest = { ms, label: `${item.name} (${circuit.name})`, path };
        }
      }
      if (shortest === undefined && missing.length === 0) return [];
      const found = shortest;
      return [
        {
          subject: stackSubject(compiled),
          value: type.transferMs,
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
            source: 'Transfer time of the inverter type; longest interruption typed for each item.',
            notes: [
              ...(type.transferMs === undefined
                ? []
                : [`Transfer time of ${type.name}: ${type.transferMs} ms.`]),
              ...(broken.length > 0
                ? [
                    `${counted(broken.length, 'load')} cannot take a break as long as the transfer.`,
                    ...broken,
                  ]
                : []),
            ],
          }),
        },
      ];
    }),
};
