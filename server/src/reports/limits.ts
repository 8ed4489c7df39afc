import {
  acceptanceOf,
  type Analysis,
  analysisCauses,
  formatQuantity,
  modesOf,
  sentenceOf,
  tableValueLabel,
  type State,
  STATES,
  verdictOf,
} from '@bastion/core';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { heading, moment, reportPage, table } from './page.ts';

const TITLES: Record<State, string> = {
  over: 'Over the limit',
  unknown: 'Not known yet',
  tight: 'Tight: within, with little left',
  within: 'Within the limits entered',
};

/** All findings of a design in all its modes, worst first, for paper. */
export function limitsReport(
  analysis: Analysis,
  made: { readonly revision: number; readonly madeAt: Date },
): TDocumentDefinitions {
  const { design, installation, findings } = analysis;
  const labels = new Map(modesOf(installation).map((mode) => [mode.id, mode.label]));
  const sections = STATES.flatMap((state): Content[] => {
    const some = findings.filter((finding) => finding.state === state);
    if (some.length === 0) return [];
    const rows = some.map((finding): Content[] => [
      labels.get(finding.mode) ?? finding.mode,
      sentenceOf(design, finding),
      {
        text: finding.margin === undefined ? '' : formatQuantity(finding.margin, 'fraction'),
        alignment: 'right',
      },
    ]);
    return [
      heading(`${TITLES[state]} (${some.length})`),
      table([90, '*', 45], ['Mode', 'Finding', 'Margin'], rows),
    ];
  });
  const causes = analysisCauses(analysis);
  const causeRows = causes.map((cause): Content[] => {
    const accepted = acceptanceOf(installation, cause.worst);
    return [
      accepted === undefined ? cause.state : `${cause.state}, accepted`,
      `${cause.follows === undefined ? '' : '→ '}${cause.title}: ${sentenceOf(design, cause.worst)}${accepted === undefined ? '' : ` Accepted by ${accepted.by}: ${accepted.reason}`}`,
      { text: String(cause.findings.length), alignment: 'right' },
    ];
  });
  const overrides = design.defaults.map((one): Content[] => [one.id, String(one.value), one.reason]);
  const tableRows = (design.tableValues ?? []).map((one): Content[] => [
    tableValueLabel(one),
    String(one.value),
    `${one.by}: ${one.reason}`,
  ]);
  return reportPage(
    `${design.name}: limits`,
    `Revision ${made.revision}, printed ${moment(made.madeAt)}. ${findings.length} findings in ${modesOf(installation).length} operating modes.`,
    [
      heading('Verdict'),
      { text: verdictOf(installation, causes) },
      heading(`Causes (${causes.length})`),
      table(['auto', '*', 45], ['State', 'Cause and its worst finding', 'Findings'], causeRows),
      ...sections,
      ...(overrides.length === 0
        ? []
        : [
            heading('Limits changed for this job'),
            table(['auto', 'auto', '*'], ['Default', 'Value', 'Reason'], overrides),
          ]),
      ...(tableRows.length === 0
        ? []
        : [
            heading('Values of code tables overridden for this job'),
            table(['*', 'auto', '*'], ['Table', 'Value', 'By, and why'], tableRows),
          ]),
    ],
  );
}
