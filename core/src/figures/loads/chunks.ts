import type { Circuit } from '../../installation/facts.ts';
import { remember } from '../../values/remember.ts';

/**
 * Circuits in a row of a list. A list of hundreds is summed chunk by chunk: an edit of one circuit leaves the other chunks the same
 * objects, and what is kept beside them is found again.
 */
export interface Chunk {
  readonly circuits: readonly Circuit[];
}

/** About the root of the circuits of a large survey, so that neither a chunk nor the list of them is long. */
const LENGTH = 32;

/** The chunks that began with a circuit of late, the last one first: several boards cut their own lists. */
const begun = new WeakMap<Circuit, readonly Chunk[]>();
const KEPT = 4;

function isSame({ circuits }: Chunk, list: readonly Circuit[], from: number, to: number): boolean {
  if (circuits.length !== to - from) return false;
  for (let at = from; at < to; at += 1) if (circuits[at - from] !== list[at]) return false;
  return true;
}

/** Cuts a list into chunks, by place alone: the same list gives the same chunks, whatever was cut before. */
export const chunksOf = remember((list: readonly Circuit[]): readonly Chunk[] => {
  const chunks: Chunk[] = [];
  for (let from = 0; from < list.length; from += LENGTH) {
    const to = Math.min(from + LENGTH, list.length);
    const first = list[from];
    if (first === undefined) break;
    const before = begun.get(first) ?? [];
    const kept = before.find((chunk) => isSame(chunk, list, from, to));
    const chunk = kept ?? { circuits: list.slice(from, to) };
    if (kept === undefined) begun.set(first, [chunk, ...before.slice(0, KEPT - 1)]);
    chunks.push(chunk);
  }
  return chunks;
});
