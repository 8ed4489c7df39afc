import type { Circuit, Importance } from '../../installation/facts.ts';

/** What matters most comes first. */
export const RANK: Record<Importance, number> = { must: 0, should: 1, could: 2, 'leave-off': 3 };

/** A circuit matters as much as the thing on it that matters most; undefined while nobody has said. */
export function importanceOf(circuit: Circuit): Importance | undefined {
  return circuit.items
    .flatMap((item) => (item.importance === undefined ? [] : [item.importance]))
    .sort((a, b) => RANK[a] - RANK[b])[0];
}
