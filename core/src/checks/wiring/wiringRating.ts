import { cableLines } from '../../figures/wiring/cableLines.ts';
import { askLine } from '../../sizing/askLine.ts';
import { demandA } from '../../sizing/judgeSize.ts';
import { type Check, judge, NO_WORKING } from '../check.ts';
import type { Finding } from '../finding.ts';
import { cableSubject } from '../support/cables.ts';
import type { PartKind } from '../../installation/network.ts';
import { onNetwork, partOf, troubleOrOne, WHOLE } from '../support/network.ts';

/** What stands at grid and generator is held against those by checks of their own. */
const OF_SOURCES: ReadonlySet<PartKind> = new Set(['grid', 'generator']);

/** Devices of circuits, boards and units against the load that goes through them. The service and the battery have checks of their own. */
export const wiringRating: Check<'wiring.rating'> = {
  id: 'wiring.rating',
  title: 'Devices carry their load',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: its device would have to be rated {{value}} for its load and is rated {{limit}}: it opens in service.',
    tight: '{{subject}}: its device is rated {{limit}} for {{value}}.',
    within: '{{subject}}: every device is rated for its load.',
    unknown: '{{subject}}: whether its device carries the load is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringRating.id, context, ({ network }) => {
      const { installation } = context;
      const lines = cableLines(installation);
      if (!lines.known) return [];
      const findings = lines.value.flatMap((line): Finding[] => {
        const isStated = line.devices.some(({ ratedA }) => ratedA.known);
        const isOwn = line.ends.some(({ partId }) =>
          OF_SOURCES.has(partOf(network, partId)?.kind ?? 'circuit'),
        );
        if (line.use !== 'ac' || !isStated || isOwn) return [];
        const asked = askLine(installation, line);
        if (asked?.known !== true || asked.value.deviceA === undefined) return [];
        const { question, deviceA, carried, device } = asked.value;
        return [
          judge(wiringRating.id, context, {
            subject: cableSubject(installation, line),
            value: demandA(question),
            limit: deviceA,
            unit: 'A',
            graded: false,
            working: () => ({
              ...NO_WORKING,
              inputs: [{ label: 'Rating', path: device?.path ?? [], value: deviceA, unit: 'A' }],
              source:
                question.profile === 'metric'
                  ? `I_b ≤ I_n. ${carried.because}.`
                  : `1.25 times what stays for three hours, and the rest. ${carried.because}.`,
            }),
          }),
        ];
      });
      return troubleOrOne(findings, { ...WHOLE, label: 'Every device whose rating is stated' });
    }),
};
