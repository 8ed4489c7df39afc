import {
  bandFigures,
  judgeReading,
  type Procedure,
  type ProcedureStep,
  readingFigure,
  type ReadingSpec,
  type Verdict,
  type wire,
  SKIPPED,
  skipOf,
} from '@bastion/core';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { heading, moment, reportPage, table } from './page.ts';

const WORDS: Record<Verdict, string> = {
  abort: 'past the abort limit',
  outside: 'outside',
  'not-judged': 'not judged',
  within: 'within',
  recorded: 'recorded',
  pending: 'not taken',
  skipped: 'skipped',
};

function bandWords(spec: ReadingSpec): string {
  if (spec.kind === 'confirmation') return 'yes';
  if (spec.missing.length > 0) return `missing: ${spec.missing.join('; ')}`;
  const words = bandFigures(spec, spec.expected ?? {});
  return words === '' ? 'recorded only' : `${words} ${spec.unit}`.trim();
}

/** The figure as the instrument showed it. */
function valueWords(spec: ReadingSpec, value: number): string {
  return spec.kind === 'confirmation'
    ? value === 1
      ? 'yes'
      : 'no'
    : `${readingFigure(value)} ${spec.unit}`.trim();
}

/** Every reading of a step, corrected and repeated ones too: nothing that was taken is left out. */
function stepRows(step: ProcedureStep, readings: readonly wire.Reading[]): Content[][] {
  const skips = readings.filter((one) => one.stepId === step.id && one.readingId === SKIPPED);
  const isSkipped = skipOf(step, readings) !== undefined;
  const rows = step.readings.flatMap((spec): Content[][] => {
    const taken = readings.filter((one) => one.stepId === step.id && one.readingId === spec.id);
    if (taken.length === 0)
      return [[spec.label, bandWords(spec), '', isSkipped ? WORDS.skipped : WORDS.pending, '']];
    return taken.map((one) => {
      const corrected = readings.some((other) => other.corrects === one.id);
      const verdict = corrected ? 'corrected below' : WORDS[judgeReading(spec, one.value)];
      const attempt = one.attempt > 1 ? ` (attempt ${one.attempt})` : '';
      return [
        `${spec.label}${attempt}`,
        bandWords(spec),
        valueWords(spec, one.value),
        verdict,
        [`${one.by}, ${moment(one.at)}`, one.source, one.note].filter((part) => part !== '').join(': '),
      ];
    });
  });
  // Skipping and taking up again stand beside the readings, each with its reason.
  return [
    ...rows,
    ...skips.map((one): Content[] => [
      one.value === 1 ? 'Step skipped' : 'Step taken up again',
      '',
      '',
      '',
      `${one.by}, ${moment(one.at)}: ${one.note}`,
    ]),
  ];
}

/** What stood between the design and its test when the run began: verdict, what is accepted by name, and who signs for it. */
function standing({ verdict, accepted = [], equipment = [] }: Procedure): Content[] {
  return [
    ...(verdict === undefined ? [] : [heading('Verdict'), { text: verdict }]),
    ...(accepted.length === 0
      ? []
      : [
          heading('Accepted findings'),
          table(
            ['*', 110, 150],
            ['Finding', 'Accepted by', 'Reason'],
            accepted.map((one) => [
              one.finding,
              `${one.by}, ${moment(new Date(one.at).toISOString())}`,
              one.reason,
            ]),
          ),
        ]),
    ...(equipment.length === 0
      ? []
      : [
          heading('Equipment'),
          table(
            ['*', '*', 100, 110],
            ['Part', 'Type', 'Serial', 'Firmware'],
            equipment.map((one) => [one.what, one.type, one.serial, one.firmware]),
          ),
        ]),
    heading('Responsible licensed person'),
    table(['*', 130, 130, 100], ['Name', 'Licence', 'Signature', 'Date'], [[' ', ' ', ' ', ' ']]),
    heading('Instruments used'),
    table(
      ['*', 130, 130],
      ['Instrument', 'Serial', 'Calibrated until'],
      [
        [' ', ' ', ' '],
        [' ', ' ', ' '],
      ],
    ),
  ];
}

/** What the design makes needless, so that nobody takes it for forgotten. */
const leftOutLines = ({ leftOut = [] }: Procedure): Content[] =>
  leftOut.length === 0
    ? []
    : [heading('Not needed here'), { ul: leftOut.map(({ what, why }) => `${what}: ${why}.`) }];

/** A retest says what it follows, so that nobody takes it for the whole test. */
const retestLine = ({ retest }: Procedure): Content[] =>
  retest === undefined
    ? []
    : [
        {
          text: `A partial retest after run ${retest.run} on revision ${retest.revision}: ${retest.leftOut} steps of the whole test are not in it.`,
          bold: true,
        },
      ];

/** The record of one run of the islanding test. */
export function testRecord(
  run: wire.TestRun,
  made: { readonly jobName: string; readonly madeAt: Date },
): TDocumentDefinitions {
  const ended = run.endedAt === null ? 'still running' : `${run.state} ${moment(run.endedAt)}`;
  const reason = run.reason === '' ? [] : [{ text: `Reason: ${run.reason}`, bold: true }];
  return reportPage(
    `${made.jobName}: islanding test ${run.number}`,
    `On revision ${run.revision}. Started by ${run.startedBy} ${moment(run.startedAt)}, ${ended}. Printed ${moment(made.madeAt)}.`,
    [
      ...reason,
      ...retestLine(run.procedure),
      ...standing(run.procedure),
      ...leftOutLines(run.procedure),
      ...run.procedure.steps.flatMap((step) => [
        heading(step.title),
        table(
          ['*', 95, 60, 65, 120],
          ['Reading', 'Expected', 'Read', 'Verdict', 'Who and when'],
          stepRows(step, run.readings),
        ),
      ]),
    ],
  );
}
