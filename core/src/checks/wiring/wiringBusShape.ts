import { linkFigures } from '../../figures/comms/linkFigures.ts';
import type { CommsLink, LinkKind, Network } from '../../installation/network.ts';
import { groupBy } from '../../values/groupBy.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { LINK_WORDS } from '../../figures/comms/linkWords.ts';
import { onNetwork, partOf, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';

/** Buses that are one line of several parts. Parallel and battery bus are held against the rules of their types elsewhere. */
const LINES: ReadonlySet<LinkKind> = new Set(['meter-bus']);
/** A bus passes a part: one cable comes, one goes. */
const MOST_AT_A_PART = 2;

/** Parts of a bus that no cable joins to what reads them: they hang on each other in a ring, or on one that is not there. */
function cutOff(links: readonly CommsLink[], network: Network): readonly string[] {
  const isReader = ({ partId }: CommsLink['a']): boolean => {
    const kind = partOf(network, partId)?.kind;
    return kind === 'controller' || kind === 'inverter';
  };
  const reached = new Set(links.flatMap(({ a }) => (isReader(a) ? [a.partId] : [])));
  for (let grew = true; grew;) {
    grew = false;
    for (const { a, b } of links)
      for (const [from, to] of [
        [a.partId, b.partId],
        [b.partId, a.partId],
      ] as const)
        if (reached.has(from) && !reached.has(to)) {
          reached.add(to);
          grew = true;
        }
  }
  return [...new Set(links.flatMap(({ a, b }) => [a.partId, b.partId]))].filter((id) => !reached.has(id));
}

/** A bus is one line: no star, no branch, no gap. */
export const wiringBusShape: Check<'wiring.bus-shape'> = checkOf({
  id: 'wiring.bus-shape',
  title: 'Buses are one line',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{reason}}.',
    tight: '{{subject}}: {{reason}}.',
    within: '{{subject}}: each is one line.',
    unknown: '{{subject}}: how it is joined is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringBusShape.id, context, ({ network }) => {
      const figures = linkFigures(context.installation);
      if (!figures.known) return [];
      const links = figures.value.flatMap(({ link }) => (LINES.has(link.kind) ? [link] : []));
      const told = (partId: string, value: number, reason: string): Found<'reason'>[] => {
        const part = partOf(network, partId);
        if (part === undefined) return [];
        return [
          judge(wiringBusShape.id, context, {
            subject: partSubject(network, part),
            value,
            limit: MOST_AT_A_PART,
            unit: '',
            graded: false,
            data: { reason },
            working: () => ({
              ...NO_WORKING,
              source:
                'A bus passes each part once: branches reflect, and a part that is left out is not heard.',
            }),
          }),
        ];
      };
      const ends = links.flatMap(({ kind, a, b }) => [a, b].map((end) => ({ ...end, kind })));
      const stars = [
        ...groupBy(ends, ({ partId, socket, kind }) => `${partId} ${socket} ${kind}`).values(),
      ].flatMap((some) => {
        const [first] = some;
        return first === undefined
          ? []
          : told(
              first.partId,
              some.length,
              `${some.length} cables of the ${LINK_WORDS[first.kind]} meet here: it is a star`,
            );
      });
      const gaps = cutOff(links, network).flatMap((partId) =>
        told(partId, MOST_AT_A_PART + 1, 'no cable joins it to what reads it'),
      );
      return troubleOrOne([...stars, ...gaps], { ...WHOLE, label: 'Every meter bus' });
    }),
});
