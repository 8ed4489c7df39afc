import { coldPickup, seeLine, seeWhole, type StartingItem } from '../../figures/loads/surges.ts';
import type { StartCase } from '../../installation/facts.ts';
import { add, ZERO } from '../../network/complex.ts';
import type { Path } from '../../values/problem.ts';
import { type Check, checkOf } from '../check.ts';
import { eachSurgePlace, type SurgePlace, surgeMeasurement } from '../support/surge.ts';

/** The chosen starts that are on this board, and the places of those that are not (moved, deleted, or without a start). */
function pick(place: SurgePlace, startCase: StartCase): { starts: StartingItem[]; missing: Path[] } {
  const starts: StartingItem[] = [];
  const missing: Path[] = [];
  for (const { id, circuitId, itemId } of startCase.starts) {
    const found = place.one.board.startingItems.find(
      ({ running }) => running.circuit.id === circuitId && running.item.id === itemId,
    );
    if (found === undefined) missing.push(['startCases', startCase.id, 'starts', id]);
    else starts.push(found);
  }
  return { starts, missing };
}

/** Starts that somebody wants to see together, on top of everybody else's expected peak. */
export const surgeChosen: Check<'surge.chosen'> = checkOf({
  id: 'surge.chosen',
  title: 'Chosen starts together',
  family: 'surge',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: {{label}} takes {{value}} for {{needed}}; {{limit}} is allowed for that long: over by {{margin}}.',
    tight: '{{subject}}: {{label}} takes {{value}} for {{needed}} of {{limit}} allowed: {{margin}} left.',
    within: '{{subject}}: {{label}} takes {{value}} for {{needed}} of {{limit}} allowed: {{margin}} left.',
    unknown: '{{subject}}: what the chosen starts take is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    context.installation.startCases.flatMap((startCase) =>
      eachSurgePlace(surgeChosen.id, context, (place) => {
        const { board, compiled } = place.one;
        if (compiled.stack.id !== startCase.stackId || startCase.starts.length === 0) return undefined;
        const { starts, missing } = pick(place, startCase);
        const index = place.line === undefined ? -1 : place.one.lines.indexOf(place.line);
        const sight = index < 0 ? seeWhole : seeLine(index);
        const total =
          index < 0 ? board.expected.knownPart.reduce(add, ZERO) : (board.expected.knownPart[index] ?? ZERO);
        const envelope = coldPickup([{ starts, delayed: [] }], total, sight);
        if (envelope.length === 0 && missing.length === 0) return undefined;
        return surgeMeasurement(
          context,
          {
            ...place,
            subject: {
              ...place.subject,
              id: `${startCase.id}/${place.subject.id}`,
              about: [...(place.subject.about ?? []), { kind: 'start-case', id: startCase.id }],
              label: `${place.subject.label}, ${startCase.name}`,
            },
          },
          envelope,
          startCase.name,
          [...board.starts.missing, ...missing],
          ['The chosen items start at the same moment, in full; everything else stays at its expected peak.'],
        );
      }),
    ),
});
