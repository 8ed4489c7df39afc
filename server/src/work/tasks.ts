import {
  analyse,
  type Design,
  type Edit,
  type Procedure,
  procedureFor,
  readDesignText,
  SAMPLE_TYPES,
  usedTypeIds,
  type wire,
} from '@bastion/core';
import { type RefusalCode, type RefusalDetail, RefusalError } from '../errors.ts';
import { drillingTemplate } from '../reports/drilling.ts';
import { rehearsalReport } from '../reports/rehearsals.ts';
import { limitsReport } from '../reports/limits.ts';
import { renderPdf } from '../reports/render.ts';
import { singleLineReport } from '../reports/singleLine.ts';
import { testRecord } from '../reports/testRecord.ts';
import { type Layer, lay } from '../services/lay.ts';
import { examinePicture, type Picture } from '../services/pictures.ts';
import { readBatch } from '../services/readBatch.ts';
import { SUMMARY, USED_TYPES } from '../stored/kinds.ts';
import { summarise } from '../services/summary.ts';

/**
 * Everything that takes its time, as it runs in a thread of the pool. Documents come and go as text: that is the cheapest way between
 * threads. A document that this server has stored was judged before; here it is parsed and believed.
 */
const believed = (text: string): Design => JSON.parse(text) as Design;

/** What a task answers: a refusal is an answer as well, told as what it is where threads meet. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly code: RefusalCode; readonly detail: RefusalDetail };

function answer<T>(work: () => T): Answer<T> {
  try {
    return { ok: true, value: work() };
  } catch (error) {
    return refused(error);
  }
}

/** A refusal as an answer; whatever else went wrong stays what it is. */
function refused(error: unknown): Answer<never> {
  if (!(error instanceof RefusalError)) throw error;
  return { ok: false, code: error.code, detail: error.detail };
}

/** Judges text that came from outside, or from the store; what comes back is the document as it is kept now. */
export const readWhole = (text: string): Answer<string> =>
  answer(() => {
    const read = readDesignText(text, SAMPLE_TYPES);
    if (!read.ok) throw new RefusalError('DOCUMENT_INVALID', { problems: read.problems.slice(0, 100) });
    return JSON.stringify(read.value);
  });

export const batch = (text: string): Answer<wire.EditBatch> => answer(() => readBatch(text));

/** A document as text, and the edits to be laid over it. */
export interface Laying {
  readonly text: string;
  readonly patches: readonly Edit[];
  readonly laying: Layer;
}

export const layOver = ({
  text,
  patches,
  laying,
}: Laying): Answer<{ text: string; edits: readonly Edit[] }> =>
  answer(() => {
    const { design, edits } = lay(believed(text), patches, laying);
    return { text: JSON.stringify(design), edits };
  });

export const picture = (bytes: Uint8Array): Answer<Picture> => answer(() => examinePicture(bytes));

/** A thread that answers has read its code, and has looked at a document once. */
export const awake = (): true => {
  readDesignText('{}', SAMPLE_TYPES);
  return true;
};

/** What the job list shows of a document, and the types it uses, both as text. */
export const summary = (text: string): Answer<{ summary: string; usedTypes: string }> =>
  answer(() => {
    const design = believed(text);
    return {
      summary: SUMMARY.write(summarise(design)),
      usedTypes: USED_TYPES.write([...usedTypeIds(design)]),
    };
  });

/** The test of a document. Figures that are none stay visible: JSON would make nothing of them. */
export const procedure = (text: string): Answer<Procedure> =>
  answer(() => procedureFor(believed(text), SAMPLE_TYPES));

/** What a paper is made of. */
export type Paper = { readonly madeAt: Date } & (
  | { readonly kind: 'limits' | 'drilling' | 'rehearsals'; readonly text: string; readonly revision: number }
  | {
      readonly kind: 'drawing';
      readonly text: string;
      readonly revision: number;
      readonly mode: string | undefined;
      readonly name: string;
    }
  | { readonly kind: 'record'; readonly run: wire.TestRun; readonly jobName: string }
);

export async function paper(given: Paper): Promise<Answer<Uint8Array>> {
  try {
    return { ok: true, value: await written(given) };
  } catch (error) {
    return refused(error);
  }
}

async function written(given: Paper): Promise<Uint8Array> {
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
    case 'rehearsals':
      return renderPdf(
        rehearsalReport(analyse(believed(given.text), SAMPLE_TYPES), { revision: given.revision, madeAt }),
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
