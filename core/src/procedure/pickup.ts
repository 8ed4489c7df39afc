import { concerns } from '../checks/finding.ts';
import { islandBoard } from '../figures/loads/boards.ts';
import { statedOf } from '../installation/stated.ts';
import type { Analysis } from '../checks/analyse.ts';
import type { CompiledStack } from '../installation/installation.ts';
import { sentenceOf } from '../checks/sentence.ts';
import { surgeStaggered } from '../checks/surge/surgeStaggered.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';
import { confirmation } from './specs.ts';

/** How far a delay relay may be from its setting: a tenth, but not less than a second by hand. */
const DELAY_TOLERANCE = 0.1;
const BY_HAND_S = 1;

/** Where the design staggers its starts: the delays are timed one by one after a break. */
export function pickupSteps(analysis: Analysis, compiled: CompiledStack): ProcedureStep[] {
  const { installation, findings } = analysis;
  const board = islandBoard(compiled);
  if (!board.known || !board.value.isStaggered) return [];
  const delayed = board.value.circuits
    .flatMap((circuit) =>
      circuit.startDelayS !== undefined && circuit.startDelayS > 0
        ? [{ circuit, delayS: circuit.startDelayS }]
        : [],
    )
    .sort((a, b) => a.delayS - b.delayS);
  const judged = findings.filter(
    (finding) =>
      finding.check === surgeStaggered.id &&
      finding.mode === 'island' &&
      concerns(finding.subject, { kind: 'stack', id: compiled.stack.id }),
  );
  const isOver = judged.some((finding) => finding.state === 'over');
  const readings = delayed.map(({ circuit, delayS }): ReadingSpec => {
    const around = Math.max(BY_HAND_S, delayS * DELAY_TOLERANCE);
    return {
      id: `delay-${circuit.id}`,
      label: `${circuit.name} closes after`,
      unit: 's',
      kind: 'number',
      instrument: 'stopwatch',
      nominal: delayS,
      expected: { low: delayS - around, high: delayS + around },
      missing: [],
    };
  });
  return [
    {
      id: `pickup-${compiled.stack.id}`,
      section: 'start',
      title: `${compiled.stack.name}: pickup after a break, stage by stage`,
      instructions: [
        `Set the delays: ${delayed.map(({ circuit, delayS }) => `${circuit.name} ${delayS} s`).join(', ')}.`,
        'In island, open the main device of the backed-up board for a minute, then close it and start the watch.',
        ...judged.map((finding) => sentenceOf(statedOf(installation), finding)),
        'Record when each stage closes.',
      ],
      cautions: [
        ...(isOver
          ? [
              'The model says that this pickup is over the limit. Do not make it unless the licensed person has accepted it.',
            ]
          : []),
        'Machines start by themselves one after the other: keep clear of all of them until the last has come up.',
      ],
      readings: [...readings, confirmation('held', 'The set came up with every stage, without a trip')],
      abortText: 'Stop if two stages close together, or the set alarms.',
    },
  ];
}
