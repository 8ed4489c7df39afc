import {
  analyse,
  type Design,
  procedureFor,
  readDesignText,
  type Result,
  SAMPLE_TYPES,
  usedTypeIds,
  type wire,
} from '@bastion/core';
import { drillingTemplate } from '../reports/drilling.ts';
import { limitsReport } from '../reports/limits.ts';
import { renderPdf } from '../reports/render.ts';
import { singleLineReport } from '../reports/singleLine.ts';
import { testRecord } from '../reports/testRecord.ts';
import { summarise } from '../services/summary.ts';

/**
 * Everything that takes its time, as it runs in a thread of the pool. Documents come and go as text: that is the cheapest way between
 * threads. A document that this server has stored was judged before; here it is parsed and believed.
 */
const believed = (text: string): Design => JSON.parse(text) as Design;

/** Judges text that came from outside, or from the store; what comes back is the document as it is kept now. */
export function readWhole(text: string): Result<string> {
  const read = readDesignText(text, SAMPLE_TYPES);
  return read.ok ? { ok: true, value: JSON.stringify(read.value) } : read;
}

/** What the job list shows of a document, and the types it uses, both as text. */
export function summary(text: string): { summary: string; usedTypes: string } {
  const design = believed(text);
  return {
    summary: JSON.stringify(summarise(design)),
    usedTypes: JSON.stringify([...usedTypeIds(design)]),
  };
}

/** The test of a document, as text. Figures that are none stay visible: JSON would make nothing of them. */
export function procedure(text: string): ReturnType<typeof procedureFor> {
  return procedureFor(believed(text), SAMPLE_TYPES);
}

/** What a paper is made of. */
export type Paper = { readonly madeAt: Date } & (
  | { readonly kind: 'limits' | 'drilling'; readonly text: string; readonly revision: number }
  | {
      readonly kind: 'drawing';
      readonly text: string;
      readonly revision: number;
      readonly mode: string | undefined;
      readonly name: string;
    }
  | { readonly kind: 'record'; readonly run: wire.TestRun; readonly jobName: string }
);

export async function paper(given: Paper): Promise<Uint8Array> {
  const { madeAt } = given;
  switch (given.kind) {
    case 'limits':
      return renderPdf(
        limitsReport(analyse(believed(given.text), SAMPLE_TYPES), { revision: given.revision, madeAt }),
      );
    case 'drilling':
      return renderPdf(
        drillingTemplate(analyse(believed(given.text), SAMPLE_TYPES), { revision: given.revision, madeAt }),
      );
    case 'drawing': {
      const { revision, name, mode } = given;
      const analysis = analyse(believed(given.text), SAMPLE_TYPES);
      return renderPdf(await singleLineReport(analysis, mode, { revision, madeAt, name }));
    }
    case 'record':
      return renderPdf(testRecord(given.run, { jobName: given.jobName, madeAt }));
  }
}
