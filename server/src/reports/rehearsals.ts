import {
  type Analysis,
  askedWords,
  bandRows,
  foundWords,
  type KeptRehearsal,
  plantKey,
  plantsOf,
  type Rehearsed,
  transferOf,
} from '@bastion/core';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { heading, moment, reportPage, table } from './page.ts';

/** The first seconds of a set as the design stands now: they are worked out when the page is made. */
function firstSeconds({ compiled }: Rehearsed): Content[] {
  const transfer = transferOf(compiled);
  if (!transfer.known)
    return [{ text: 'The first seconds cannot be told yet: figures are missing, see the Rehearse stage.' }];
  const { gapMs, gapSetBy, events } = transfer.value;
  return [
    { text: `The gap lasts ${gapMs} ms, by ${gapSetBy}.`, margin: [0, 0, 0, 4] },
    table(
      [60, '*'],
      ['After', 'What happens'],
      events.map(({ atS, sentence, isBad }): Content[] => [
        `${Math.round(atS * 1000)} ms`,
        { text: sentence, bold: isBad },
      ]),
    ),
  ];
}

/** How the bank fares over the hours of many nights, where that was kept. */
function spreadOf(own: readonly KeptRehearsal[]): Content[] {
  return own.flatMap((one): Content[] => {
    const rows = bandRows(one);
    return rows.length === 0
      ? []
      : [
          heading(`State of charge over ${askedWords(one)}`),
          table(
            [50, '*', '*', '*', '*', '*', '*'],
            ['After', 'Worst 5 of 100', 'Worst 25', 'Middle', '25 are better', '5 are better', 'Dark'],
            rows.map((cells): Content[] => [...cells]),
          ),
        ];
  });
}

/** Whether the design still is what a rehearsal was played from. */
function standing(kept: KeptRehearsal, { plant }: Rehearsed): string {
  return plant.known && plantKey(plant.value) === kept.plantKey
    ? 'as the design stands'
    : 'the design has moved on since';
}

/** What was rehearsed and kept, set by set, and the first seconds as they are now. */
export function rehearsalReport(
  analysis: Analysis,
  made: { readonly revision: number; readonly madeAt: Date },
): TDocumentDefinitions {
  const { design, installation } = analysis;
  const kept = design.rehearsals ?? [];
  const sets = plantsOf(installation);
  const content = sets.flatMap((set): Content[] => {
    const { stack } = set.compiled;
    const own = kept.filter(({ stackId }) => stackId === stack.id);
    const rows = own.map((one): Content[] => [
      one.played === 'outage' ? 'One outage' : 'Many nights',
      askedWords(one),
      { stack: foundWords(one) },
      `${one.revision}: ${standing(one, set)}`,
    ]);
    return [
      heading(stack.name),
      ...firstSeconds(set),
      heading(`${stack.name}: kept rehearsals (${own.length})`),
      own.length === 0
        ? { text: 'None is kept. What is played in the Rehearse stage is kept there.' }
        : table([55, 110, '*', 70], ['Played', 'Asked for', 'What came of it', 'Revision'], rows),
      ...spreadOf(own),
    ];
  });
  return reportPage(
    `${design.name}: rehearsal`,
    `Revision ${made.revision}, printed ${moment(made.madeAt)}. A rehearsal plays figures, not the site: what the site does is found by the islanding test.`,
    content.length > 0 ? content : [{ text: 'Nothing here makes an island that could be rehearsed.' }],
  );
}
