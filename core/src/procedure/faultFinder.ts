import { IDLE_V, linkFigures, type LinkFigure } from '../figures/comms/linkFigures.ts';
import type { Installation } from '../installation/installation.ts';
import type { LinkKind } from '../installation/network.ts';
import { type Measurement, nextOf, type Suspect } from './elimination.ts';
import { PLAIN, type Symptom } from './plainSuspects.ts';

const BUS_OF: Readonly<Partial<Record<Symptom, LinkKind>>> = {
  'battery-comms-lost': 'battery-bus',
  'meter-lost': 'meter-bus',
  'unit-lost': 'parallel-bus',
};

const nameOf = ({ ends: [a, b], link }: LinkFigure): string =>
  `${a?.label ?? link.a.partId} to ${b?.label ?? link.b.partId}`;

function idleOf(installation: Installation, { ends: [a, b] }: LinkFigure): { min: number; max: number } {
  const type = installation.stacks.find(({ stack }) => stack.id === (a?.stackId ?? b?.stackId))?.type;
  return (type?.known === true ? type.value.pairIdleV : undefined) ?? IDLE_V;
}

/**
 * A bus is one line from the part that reads it: the pair read at the far end of a cable proves everything up to there, or puts the fault
 * into it. Every cut halves what is left.
 */
function busQuestions(
  installation: Installation,
  links: readonly LinkFigure[],
): { readonly suspects: Suspect[]; readonly measurements: Measurement[] } {
  const suspects = links.flatMap((figure, at): Suspect[] => [
    { id: `cable-${at}`, what: `the cable ${nameOf(figure)}, its plugs and its pair`, weight: 2 },
    {
      id: `part-${at}`,
      what: `the socket, address or terminator of ${figure.ends[1]?.label ?? figure.link.b.partId}`,
      weight: 1,
    },
  ]);
  const ids = suspects.map(({ id }) => id);
  const measurements = links.map((figure, at): Measurement => {
    const before = new Set(ids.slice(0, 2 * at + 1));
    const { min, max } = idleOf(installation, figure);
    return {
      id: `pair-${figure.link.id}`,
      place: `at ${figure.ends[1]?.label ?? figure.link.b.partId}, socket ${figure.link.b.socket}, with the plug out of it and nothing beyond`,
      what: 'Voltage between the two cores of the pair, at rest',
      instrument: 'DC voltmeter, 0.1 V',
      expected: `${min} to ${max} V`,
      band: { low: min, high: max, unit: 'V' },
      goodRulesOut: ids.filter((id) => before.has(id)),
      badRulesOut: ids.filter((id) => !before.has(id)),
    };
  });
  return { suspects, measurements };
}

/** What a measurement has shown. */
export interface Answer {
  readonly measurementId: string;
  readonly isAsExpected: boolean;
}

/** Whether a figure is what a measurement expects; undefined where it is not read as a figure. */
export const judgeMeasured = ({ band }: Measurement, value: number): boolean | undefined =>
  band && value >= band.low - 1e-9 && value <= band.high + 1e-9;

export interface FaultSearch {
  /** What may still be wrong, likeliest first. */
  readonly left: readonly Suspect[];
  /** The next thing to measure; undefined once nothing divides what is left. */
  readonly next: Measurement | undefined;
  /** Everything else that could be measured and was not: for who has a figure already. */
  readonly others: readonly Measurement[];
  /** Why nothing can be searched, where that is so. */
  readonly nothing: string | undefined;
}

/**
 * The next measurement for a symptom in this installation: the one after which fewest suspects are left on average. Where several are as
 * good, the hardest end to reach comes first.
 */
export function searchFault(
  installation: Installation,
  symptom: Symptom,
  answers: readonly Answer[],
): FaultSearch {
  const bus = BUS_OF[symptom];
  const figures = linkFigures(installation);
  if (bus !== undefined && !figures.known)
    return {
      left: [],
      next: undefined,
      others: [],
      nothing: 'Nothing is known of its buses while the supply of the site is not.',
    };
  const links = figures.known ? figures.value.filter(({ link }) => link.kind === bus) : [];
  if (bus !== undefined && links.length === 0)
    return {
      left: [],
      next: undefined,
      others: [],
      nothing: 'No cable of this bus is planned: plug it in Stack, or list the meter in Wiring.',
    };
  const plain = PLAIN[symptom] ?? [];
  const { suspects, measurements } =
    bus !== undefined
      ? busQuestions(installation, links)
      : {
          suspects: plain.map(({ id, what, weight }) => ({ id, what, weight })),
          measurements: plain.map(({ id, place, measure, instrument, expected }): Measurement => ({
            id: `measure-${id}`,
            place,
            what: measure,
            instrument,
            expected,
            goodRulesOut: [id],
            badRulesOut: plain.flatMap((one) => (one.id === id ? [] : [one.id])),
          })),
        };
  const out = new Set(
    answers.flatMap(({ measurementId, isAsExpected }) => {
      const one = measurements.find(({ id }) => id === measurementId);
      return one === undefined ? [] : isAsExpected ? one.goodRulesOut : one.badRulesOut;
    }),
  );
  const left = suspects.filter(({ id }) => !out.has(id)).sort((a, b) => b.weight - a.weight);
  const asked = new Set(answers.map(({ measurementId }) => measurementId));
  const open = measurements.filter(({ id }) => !asked.has(id));
  const next = nextOf(left, open);
  return {
    left,
    next,
    // What rules nothing out any more is not worth a way.
    others: open.filter((one) => one !== next && nextOf(left, [one]) !== undefined),
    nothing: undefined,
  };
}
