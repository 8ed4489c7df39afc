import type { Circuit } from '../../installation/facts.ts';
import type { Path } from '../../values/problem.ts';
import { remember } from '../../values/remember.ts';
import { type Chunk, chunksOf } from './chunks.ts';

/** The longest break that an item takes. */
export interface Break {
  readonly ms: number;
  readonly label: string;
  readonly path: Path;
}

interface ChunkBreaks {
  readonly breaks: readonly Break[];
  readonly shortest: Break | undefined;
  readonly missing: readonly Path[];
}

const breaksOf = remember(({ circuits }: Chunk): ChunkBreaks => {
  const breaks: Break[] = [];
  const missing: Path[] = [];
  for (const circuit of circuits) {
    if (circuit.items.length === 0) missing.push(['circuits', circuit.id, 'items']);
    for (const { id, name, longestInterruptionMs: ms } of circuit.items) {
      const path = ['circuits', circuit.id, 'items', id, 'longestInterruptionMs'];
      if (ms === undefined) missing.push(path);
      else breaks.push({ ms, label: `${name} (${circuit.name})`, path });
    }
  }
  return { breaks, shortest: shortestOf(breaks), missing };
});

/** The first of the shortest; undefined of none. */
const shortestOf = (breaks: readonly (Break | undefined)[]): Break | undefined =>
  breaks.reduce(
    (least, one) => (one !== undefined && (least === undefined || one.ms < least.ms) ? one : least),
    undefined,
  );

/** What breaks the items of some circuits take. */
export interface Breaks {
  readonly shortest: Break | undefined;
  readonly missing: readonly Path[];
  /** Those that are shorter than so many ms. */
  readonly below: (ms: number) => readonly Break[];
}

/** What breaks circuits take, and what does not say so. A circuit without items has not been surveyed. */
export function breaksIn(circuits: readonly Circuit[]): Breaks {
  const parts = chunksOf(circuits).map(breaksOf);
  return {
    shortest: shortestOf(parts.map(({ shortest }) => shortest)),
    missing: parts.flatMap(({ missing }) => missing),
    below: (ms) =>
      parts.flatMap(({ breaks, shortest }) =>
        shortest !== undefined && shortest.ms < ms ? breaks.filter((one) => one.ms < ms) : [],
      ),
  };
}
