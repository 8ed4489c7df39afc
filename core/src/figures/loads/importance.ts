import type { Circuit, Importance } from '../../installation/facts.ts';
import { type Chunk, chunksOf } from './chunks.ts';
import { remember } from '../../values/remember.ts';

/** What matters most comes first. */
export const RANK: Record<Importance, number> = { must: 0, should: 1, could: 2, 'leave-off': 3 };

/** A circuit matters as much as the thing on it that matters most; undefined while nobody has said. */
export function importanceOf({ items }: Circuit): Importance | undefined {
  let most: Importance | undefined;
  for (const { importance } of items)
    if (importance !== undefined && (most === undefined || RANK[importance] < RANK[most])) most = importance;
  return most;
}

const mustRunOf = remember(({ circuits }: Chunk) =>
  circuits.filter((circuit) => importanceOf(circuit) === 'must'),
);

/** Of a survey the circuits that must run in an outage. */
export const mustRun = (circuits: readonly Circuit[]): readonly Circuit[] =>
  chunksOf(circuits).flatMap(mustRunOf);
