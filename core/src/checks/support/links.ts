import { type LinkFigure, linkFigures } from '../../figures/comms/linkFigures.ts';
import { LINK_WORDS } from '../../figures/comms/linkWords.ts';
import type { CheckContext } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { onNetwork, refsOf, troubleOrOne, WHOLE } from './network.ts';

/** A finding about a cable of comms: it stands on both of its ends. */
export function linkSubject(context: CheckContext, { link, ends: [a, b] }: LinkFigure): Subject {
  const { network } = context.installation;
  const words = LINK_WORDS[link.kind];
  return {
    kind: 'part',
    id: link.id,
    label: `${words.charAt(0).toUpperCase()}${words.slice(1)}, ${a?.label ?? link.a.partId} to ${b?.label ?? link.b.partId}`,
    about: network.known ? refsOf(network.value, [link.a.partId, link.b.partId]) : [],
  };
}

/** Looks at every cable of comms; of many in order one finding says it of all. */
export const eachLink = <Key extends string = never>(
  id: string,
  context: CheckContext,
  measure: (figure: LinkFigure) => readonly Found<Key>[],
): Found<Key>[] =>
  onNetwork(id, context, () => {
    const figures = linkFigures(context.installation);
    return figures.known
      ? troubleOrOne(figures.value.filter(({ link }) => link.by !== 'radio').flatMap(measure), {
          ...WHOLE,
          label: 'Every cable of comms',
        })
      : [];
  });
