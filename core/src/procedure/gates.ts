import { subjectKey } from '../checks/finding.ts';
import { modesOf } from '../modes/modes.ts';
import { statedOf } from '../installation/stated.ts';
import type { Analysis } from '../checks/analyse.ts';
import type { RegisteredFinding } from '../checks/registry.ts';
import { sentenceOf } from '../checks/sentence.ts';
import { counted } from '../words/quantity.ts';
import type { ProcedureStep } from './schema.ts';
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

/** How many findings a gate spells out before it counts the rest. */
const LISTED = 6;

const isLoss = (finding: RegisteredFinding): boolean => finding.mode.startsWith('unit-lost');

function limitsGate({ installation, findings }: Analysis): ProcedureStep {
  const over = findings.filter((finding) => finding.state === 'over');
  const unknown = findings.filter((finding) => finding.state === 'unknown');
  const labels = new Map(modesOf(installation).map((mode) => [mode.id, mode.label]));
  // What fails with all units present comes first; losing either of two like units says the same, so one line is enough.
  const first = new Map<string, RegisteredFinding>();
  for (const finding of over) {
    const key = `${finding.check} ${subjectKey(finding.subject)}`;
    const known = first.get(key);
    if (known === undefined || (isLoss(known) && !isLoss(finding))) first.set(key, finding);
  }
  const distinct = [...first.values()].sort((a, b) => Number(isLoss(a)) - Number(isLoss(b)));
  const listed = distinct
    .slice(0, LISTED)
    .map(
      (finding) =>
        `${labels.get(finding.mode) ?? finding.mode}: ${sentenceOf(statedOf(installation), finding)}`,
    );
  const more = distinct.length > LISTED ? [`And ${distinct.length - LISTED} more in the limits stage.`] : [];
  return {
    id: 'gate-limits',
    section: 'gates',
    title: 'Limits are met or accepted',
    instructions: [
      over.length === 0
        ? 'No finding is over its limit.'
        : `${counted(over.length, 'finding')} over the limit. Each must be mended, or accepted in writing by the licensed person:`,
      ...listed,
      ...more,
      ...(unknown.length === 0
        ? []
        : [`${counted(unknown.length, 'finding')} cannot be judged for want of inputs.`]),
    ],
    cautions: ['An accepted finding stays a hazard. Keep its abort limit in mind at every step.'],
    readings: [
      confirmation('limits-accepted', 'Every finding over its limit is mended or accepted in writing'),
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

function deadTestGate({ installation }: Analysis): ProcedureStep {
  const least = installation.defaults.insulationMinMohm.value;
  return {
    id: 'gate-dead-tests',
    section: 'gates',
    title: 'Dead tests',
    instructions: [
      'Disconnect electronics before the insulation test, as the manual of each says.',
      'Record earth continuity to the furthest backed-up point, insulation resistance, and polarity of AC and DC.',
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
      confirmation('polarity', 'AC polarity and DC polarity right at every terminal'),
      confirmation('torque', 'Terminals torqued and tugged'),
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
