import { coldPickup, seeLine, seeWhole, type StartingItem } from '../../figures/loads/surges.ts';
import type { Circuit, StartCase } from '../../installation/facts.ts';
import { add, ZERO } from '../../network/complex.ts';
import type { Path } from '../../values/problem.ts';
import { type Check, checkOf } from '../check.ts';
import { eachSurgePlace, type SurgePlace, surgeMeasurement } from '../support/surge.ts';

/** Where it would have to be said what a chosen start that is not on the board is about: its circuit has no place, or it was moved or deleted. */
const placeToSay = (
  circuits: readonly Circuit[],
  { id }: StartCase,
  start: StartCase['starts'][number],
): Path =>
  circuits.some((one) => one.id === start.circuitId && one.partitionId === undefined)
    ? ['circuits', start.circuitId, 'partitionId']
    : ['startCases', id, 'starts', start.id];

/** The chosen starts that are on this board, and the places to mend of those that are not. */
function pick(
  place: SurgePlace,
  circuits: readonly Circuit[],
  startCase: StartCase,
): { starts: StartingItem[]; missing: Path[] } {
  const starts: StartingItem[] = [];
  const missing: Path[] = [];
  for (const start of startCase.starts) {
    const found = place.one.board.startingItems.find(
      ({ running }) => running.circuit.id === start.circuitId && running.item.id === start.itemId,
    );
    if (found === undefined) missing.push(placeToSay(circuits, startCase, start));
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
        const { starts, missing } = pick(place, context.installation.circuits, startCase);
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
