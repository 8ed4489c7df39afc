import {
  applyEdits,
  type Design,
  type Edit,
  noteStamps,
  othersNote,
  rereadTouched,
  SAMPLE_TYPES,
} from '@bastion/core';
import { RefusalError } from '../errors.ts';

/** Who lays edits over a document, and when. */
export interface Layer {
  readonly by: string;
  /** ISO time of the server. */
  readonly at: string;
  /** May change notes of others, and put back what was taken away of them. */
  readonly mayChangeNotes: boolean;
}

/** A design with edits applied, judged on all that lead to it from one that is valid. */
function judged(valid: Design, onto: Design, edits: readonly Edit[], all: readonly Edit[]): Design {
  const applied = applyEdits(onto, edits);
  if (!applied.ok) throw new RefusalError('DOCUMENT_INVALID', { problems: applied.problems });
  const read = rereadTouched(valid, applied.value as Design, all, SAMPLE_TYPES);
  if (!read.ok) throw new RefusalError('DOCUMENT_INVALID', { problems: read.problems.slice(0, 100) });
  return read.value;
}

/**
 * Lays edits over a valid document: judged, with the names and times that the server writes into notes. Throws a refusal where they
 * make no design, or touch a note of somebody else.
 */
export function lay(
  design: Design,
  patches: readonly Edit[],
  { by, at, mayChangeNotes }: Layer,
): { readonly design: Design; readonly edits: readonly Edit[] } {
  const after = judged(design, design, patches, patches);
  const other = mayChangeNotes ? undefined : othersNote(design, after, patches, by);
  if (other !== undefined)
    throw new RefusalError('NOTE_OF_OTHERS', {
      problems: [{ path: [...other.path], message: `was written by ${other.by}` }],
    });
  const stamps = noteStamps(design, after, patches, { by, at, mayRestore: mayChangeNotes });
  if (stamps.length === 0) return { design: after, edits: patches };
  const edits = [...patches, ...stamps];
  return { design: judged(design, after, stamps, edits), edits };
}
