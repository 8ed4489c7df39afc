import { linkFigures, type LinkFigure } from '../figures/comms/linkFigures.ts';
import type { Installation } from '../installation/installation.ts';
import type { LinkKind } from '../installation/network.ts';
import { type Measurement, nextOf, type Suspect } from './elimination.ts';

/** What somebody sees: classes of messages, in our own words. */
export const SYMPTOMS = {
  'battery-comms-lost': 'The inverter reports that it does not hear its battery',
  'meter-lost': 'The inverter or the controller reports that it does not hear its meter',
  'unit-lost': 'A unit of the set is reported missing',
  'configuration-mismatch': 'Units report that their settings do not fit each other',
  'sensor-negative': 'Import is shown as export, or a load raises the wrong line',
  'no-island': 'The backup output stays dark when the grid goes',
  'trips-on-start': 'The set switches off when something starts',
  'sharing-bad': 'Modules or units do not share the current',
} as const;
export type Symptom = keyof typeof SYMPTOMS;

const BUS_OF: Readonly<Partial<Record<Symptom, LinkKind>>> = {
  'battery-comms-lost': 'battery-bus',
  'meter-lost': 'meter-bus',
  'unit-lost': 'parallel-bus',
};

/** What a healthy pair shows at rest where its type says nothing, V. */
const IDLE = { min: 3.8, max: 5 } as const;

const nameOf = ({ ends: [a, b], link }: LinkFigure): string =>
  `${a?.label ?? link.a.partId} to ${b?.label ?? link.b.partId}`;

function idleWords(installation: Installation, { ends: [a, b] }: LinkFigure): string {
  const type = installation.stacks.find(({ stack }) => stack.id === (a?.stackId ?? b?.stackId))?.type;
  const { min, max } = (type?.known === true ? type.value.pairIdleV : undefined) ?? IDLE;
  return `${min} to ${max} V`;
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
    return {
      id: `pair-${figure.link.id}`,
      place: `at ${figure.ends[1]?.label ?? figure.link.b.partId}, socket ${figure.link.b.socket}, with the plug out of it and nothing beyond`,
      what: 'Voltage between the two cores of the pair, at rest',
      instrument: 'DC voltmeter, 0.1 V',
      expected: idleWords(installation, figure),
      goodRulesOut: ids.filter((id) => before.has(id)),
      badRulesOut: ids.filter((id) => !before.has(id)),
    };
  });
  return { suspects, measurements };
}

interface Plain {
  readonly id: string;
  readonly what: string;
  readonly weight: number;
  readonly place: string;
  readonly measure: string;
  readonly instrument: string;
  readonly expected: string;
}

/** Suspects that are each proven or cleared by one measurement of their own. */
const PLAIN: Readonly<Partial<Record<Symptom, readonly Plain[]>>> = {
  'configuration-mismatch': [
    {
      id: 'count',
      what: 'the number of units that is set',
      weight: 3,
      place: 'on the display of every unit',
      measure: 'Number of units in the set',
      instrument: 'display',
      expected: 'as many as are joined, on each',
    },
    {
      id: 'hosts',
      what: 'two hosts, or none',
      weight: 3,
      place: 'on the display of every unit',
      measure: 'Role',
      instrument: 'display',
      expected: 'one host, the others follow',
    },
    {
      id: 'firmware',
      what: 'other firmware on one of them',
      weight: 2,
      place: 'on the display of every unit',
      measure: 'Firmware',
      instrument: 'display',
      expected: 'the same on all',
    },
    {
      id: 'lines',
      what: 'a line that is set twice',
      weight: 2,
      place: 'on the display of every unit',
      measure: 'Line',
      instrument: 'display',
      expected: 'as the sheet of settings has it',
    },
    {
      id: 'code',
      what: 'another grid code, voltage or frequency on one of them',
      weight: 1,
      place: 'on the display of every unit',
      measure: 'Grid code, voltage, frequency',
      instrument: 'display',
      expected: 'the same on all',
    },
  ],
  'sensor-negative': [
    {
      id: 'arrow',
      what: 'an arrow that points the wrong way',
      weight: 3,
      place: 'at each sensor',
      measure: 'Direction of its arrow',
      instrument: 'by eye',
      expected: 'as its type says',
    },
    {
      id: 'line',
      what: 'a sensor on the wrong line',
      weight: 2,
      place: 'at the display, a known load on one line switched on',
      measure: 'Which line rises',
      instrument: 'display',
      expected: 'the line of the load, and no other',
    },
    {
      id: 'pair',
      what: 'the two cores of a sensor exchanged',
      weight: 2,
      place: 'at the terminals of the reader',
      measure: 'Colours of the two cores',
      instrument: 'by eye',
      expected: 'as the schedule of sensors has them',
    },
    {
      id: 'ratio',
      what: 'another ratio in the settings',
      weight: 1,
      place: 'on the display',
      measure: 'Ratio that is set',
      instrument: 'display',
      expected: 'the one on the label',
    },
  ],
  'no-island': [
    {
      id: 'output-off',
      what: 'the backup output that is switched off in the settings',
      weight: 3,
      place: 'on the display of the host',
      measure: 'Backup output',
      instrument: 'display',
      expected: 'on',
    },
    {
      id: 'reserve',
      what: 'a battery below its reserve',
      weight: 2,
      place: 'on the display',
      measure: 'State of charge',
      instrument: 'display',
      expected: 'above the reserve',
    },
    {
      id: 'output-device',
      what: 'an open device at the output',
      weight: 2,
      place: 'at the output devices and the mains of the boards',
      measure: 'Position',
      instrument: 'by eye',
      expected: 'closed',
    },
    {
      id: 'output-v',
      what: 'a unit that gives no voltage',
      weight: 2,
      place: 'at the backup port of each unit',
      measure: 'Voltage line to neutral',
      instrument: 'true-RMS voltmeter',
      expected: 'the line voltage of the site',
    },
    {
      id: 'wrong-board',
      what: 'loads that hang on a board of the grid side',
      weight: 1,
      place: 'at the dark board',
      measure: 'Which device feeds it',
      instrument: 'the drawing',
      expected: 'a backed-up board',
    },
  ],
  'trips-on-start': [
    {
      id: 'inrush',
      what: 'a start above the overload curve',
      weight: 3,
      place: 'at the line of the load',
      measure: 'Peak and length of the start',
      instrument: 'recorder and current clamp',
      expected: 'below the curve in Limits',
    },
    {
      id: 'sag',
      what: 'a battery that sags below the trip',
      weight: 3,
      place: 'at the battery port of a unit',
      measure: 'Lowest voltage during the start',
      instrument: 'recorder',
      expected: 'above the low-voltage trip of the type',
    },
    {
      id: 'lead',
      what: 'a loose or thin battery lead',
      weight: 2,
      place: 'along each battery lead under load',
      measure: 'Voltage from lug to lug',
      instrument: 'DC voltmeter, mV',
      expected: 'alike on all, a few tens of mV',
    },
    {
      id: 'several',
      what: 'several starts at once',
      weight: 1,
      place: 'at the boards',
      measure: 'What starts together',
      instrument: 'recorder',
      expected: 'one, or those with a delay apart',
    },
  ],
  'sharing-bad': [
    {
      id: 'lengths',
      what: 'leads of unequal length',
      weight: 3,
      place: 'along each lead',
      measure: 'Length',
      instrument: 'tape',
      expected: 'equal, as in Stack',
    },
    {
      id: 'joint',
      what: 'a joint that was not torqued',
      weight: 3,
      place: 'across each lug under load',
      measure: 'Voltage from lug to terminal',
      instrument: 'DC voltmeter, mV',
      expected: 'below 5 mV, alike on all',
    },
    {
      id: 'module',
      what: 'a module of other charge or age',
      weight: 2,
      place: 'at each module, unjoined and rested',
      measure: 'Voltage',
      instrument: 'DC voltmeter, 0.01 V',
      expected: 'alike within the stated difference',
    },
    {
      id: 'breaker',
      what: 'a breaker that has grown warm',
      weight: 1,
      place: 'across each module breaker under load',
      measure: 'Voltage',
      instrument: 'DC voltmeter, mV',
      expected: 'alike on all',
    },
  ],
};

/** What a measurement has shown. */
export interface Answer {
  readonly measurementId: string;
  readonly isAsExpected: boolean;
}

export interface FaultSearch {
  /** What may still be wrong, likeliest first. */
  readonly left: readonly Suspect[];
  /** The next thing to measure; undefined once nothing divides what is left. */
  readonly next: Measurement | undefined;
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
      nothing: 'Nothing is known of its buses while the supply of the site is not.',
    };
  const links = figures.known ? figures.value.filter(({ link }) => link.kind === bus) : [];
  if (bus !== undefined && links.length === 0)
    return {
      left: [],
      next: undefined,
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
  return {
    left,
    next: nextOf(
      left,
      measurements.filter(({ id }) => !asked.has(id)),
    ),
    nothing: undefined,
  };
}
