import { analysisCauses, type Cause } from '../checks/causes.ts';
import { verdictOf } from '../checks/verdict.ts';
import { acceptedLines } from './acceptedLines.ts';
import { modesOf } from '../modes/modes.ts';
import { statedOf } from '../installation/stated.ts';
import type { Analysis } from '../checks/analyse.ts';
import { describePlace } from '../words/places.ts';
import { tableValueLabel } from '../codes/tableValues.ts';
import { sentenceOf } from '../checks/sentence.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';
import type { Installation } from '../installation/installation.ts';
import { moduleStep } from './modules.ts';
import { confirmation } from './specs.ts';
import { stringStep } from './strings.ts';

/** What must be settled and recorded before anything is made live. */
export function gateSteps(analysis: Analysis): ProcedureStep[] {
  const { installation } = analysis;
  return [
    limitsGate(analysis),
    isolationGate(),
    deadTestGate(analysis),
    ...stringStep(installation),
    ...installation.stacks.flatMap((compiled) => moduleStep(installation, compiled)),
    peopleGate(),
  ];
}

/** How many causes a gate spells out before it counts the rest. */
const LISTED = 8;

function causeLine(analysis: Analysis, labels: ReadonlyMap<string, string>, cause: Cause): string {
  const modes = cause.modes.map((mode) => labels.get(mode) ?? mode);
  const where = modes.length > 1 ? ` (${modes.length} modes)` : '';
  return `${labels.get(cause.worst.mode) ?? cause.worst.mode}${where}: ${sentenceOf(statedOf(analysis.installation), cause.worst)}`;
}

/** Nothing over that nobody has taken responsibility for: the gate names each, and what is accepted with who did it. */
function limitsGate(analysis: Analysis): ProcedureStep {
  const { installation } = analysis;
  const causes = analysisCauses(analysis);
  const labels = new Map(modesOf(installation).map((mode) => [mode.id, mode.label]));
  const over = causes.filter((cause) => cause.state === 'over' && !cause.accepted);
  const unknown = causes.filter((cause) => cause.state === 'unknown' && !cause.accepted);
  const accepted = acceptedLines(analysis);
  const first = installation.firstValues;
  const more = over.length > LISTED ? [`And ${over.length - LISTED} more in the limits stage.`] : [];
  return {
    id: 'gate-limits',
    section: 'gates',
    title: 'Limits are met or accepted',
    instructions: [
      verdictOf(installation, causes),
      ...(over.length === 0
        ? []
        : ['Each of these must be mended, or accepted by the licensed person in the limits stage:']),
      ...over.slice(0, LISTED).map((cause) => causeLine(analysis, labels, cause)),
      ...more,
      ...accepted.map(({ finding, by, reason }) => `Accepted by ${by} (${reason}): ${finding}`),
      ...(installation.tableValues ?? []).map(
        (one) => `Code table overridden by ${one.by} (${one.reason}): ${tableValueLabel(one)}: ${one.value}.`,
      ),
      ...unknown.slice(0, LISTED).map(({ title }) => `Open: ${title}.`),
      ...first
        .slice(0, LISTED)
        .map((path) => `Not looked at yet: ${describePlace(statedOf(installation), path)}.`),
    ],
    cautions: ['An accepted finding stays a hazard. Keep its abort limit in mind at every step.'],
    readings: [
      over.length === 0
        ? confirmation('limits-accepted', 'Nothing is over that the licensed person has not accepted')
        : {
            id: 'limits-open',
            label: 'Causes over the limit that nobody has accepted',
            unit: '',
            kind: 'number',
            instrument: 'limits stage',
            nominal: 0,
            expected: { low: 0, high: 0 },
            missing: [],
          },
      ...(first.length === 0
        ? []
        : [
            {
              id: 'first-values',
              label: 'First values that nobody has looked at',
              unit: '',
              kind: 'number' as const,
              instrument: 'stages of the job',
              nominal: 0,
              expected: { low: 0, high: 0 },
              missing: [],
            },
          ]),
    ],
  };
}

function isolationGate(): ProcedureStep {
  return {
    id: 'gate-isolation',
    section: 'gates',
    title: 'Isolate, lock off, prove dead',
    instructions: [
      'Open and lock off the grid, backup, generator, battery and PV isolators, and keep the keys.',
      'Prove the tester on a known source, prove dead at each port, prove the tester again.',
    ],
    cautions: [
      'PV conductors are live in daylight whatever is switched off.',
      'A battery cannot be switched off inside: its terminals stay live.',
      'Wait for the inverter capacitors to discharge for the time in the manual.',
    ],
    readings: [
      confirmation('locked-off', 'All isolators locked off'),
      confirmation('proved-dead', 'Proved dead with a proven tester'),
    ],
  };
}

/** The local electrode, measured as it is built: how low is low enough, local rules say. */
function electrodeReading({ site }: Installation): ReadingSpec[] {
  if (site.localElectrode !== 'yes') return [];
  return [
    {
      id: 'electrode',
      label: 'Resistance of the local electrode',
      unit: 'Ω',
      kind: 'number',
      instrument: 'earth tester',
      ...(site.electrodeOhm === undefined ? {} : { nominal: site.electrodeOhm }),
      missing: [],
    },
  ];
}

function deadTestGate({ installation }: Analysis): ProcedureStep {
  const least = installation.defaults.insulationMinMohm.value;
  return {
    id: 'gate-dead-tests',
    section: 'gates',
    title: 'Dead tests',
    instructions: [
      'Disconnect electronics before the insulation test, as the manual of each says.',
      'Record earth continuity to the furthest backed-up point, insulation resistance, and polarity of AC and DC.',
      'Measure from neutral to earth at every backed-up board, with nothing on: what is joined there now stays joined in every mode.',
    ],
    cautions: ['The insulation tester puts out hundreds of volts: keep people off the circuits.'],
    readings: [
      {
        id: 'earth-continuity',
        label: 'Earth continuity, furthest point',
        unit: 'Ω',
        kind: 'number',
        instrument: 'low-resistance ohmmeter',
        missing: [],
      },
      {
        id: 'insulation',
        label: 'Insulation resistance, live to earth',
        unit: 'MΩ',
        kind: 'number',
        instrument: 'insulation tester',
        expected: { low: least },
        missing: [],
      },
      confirmation(
        'neutral-earth-dead',
        'Neutral and earth joined only where the drawing has a bond that stands with everything off',
      ),
      ...electrodeReading(installation),
      confirmation('polarity', 'AC polarity and DC polarity right at every terminal'),
      confirmation('torque', 'Terminals torqued and tugged'),
      ...(installation.wiring?.photoGates ?? []).map((gate) =>
        confirmation(`photos-${gate}`, `A photo of each: ${gate}`),
      ),
    ],
  };
}

function peopleGate(): ProcedureStep {
  return {
    id: 'gate-people',
    section: 'gates',
    title: 'People and cautions',
    instructions: [
      'Everyone present knows the abort limits and who stops the test. Local codes and the manuals go before this page.',
    ],
    cautions: [
      'No lone live work. Wear the protective equipment for the fault level.',
      'Keep medical, life-support and security loads off the backup output while it is tested, or on another source.',
    ],
    readings: [
      confirmation('cautions-read', 'Cautions read, protective equipment on, second person present'),
    ],
  };
}
