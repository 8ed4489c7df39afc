import type { Arena } from './arena.ts';
import { type Conductances, type Factored, SINGULAR } from './conductances.ts';

/** The widest reach that is a ladder: both poles side by side, each joined to the next of its own. */
export const LADDER_REACH = 2;

/** Words of memory that factoring a ladder takes. */
export const ladderWords = (places: number): number => (1 + LADDER_REACH) * places;

/**
 * Factors the conductances of a ladder, whose places are joined to none further than two away: elimination by blocks of two with
 * every entry where it is expected. The same answer as the general way at a fraction of its cost; most banks are ladders.
 */
export function factorLadder({ places, from, to, siemens }: Conductances, arena: Arena): Factored {
  const pivot = arena.floats(places);
  // Of each place the entry with the one before it, then with the one before that.
  const below = arena.floats(LADDER_REACH * places);
  for (let at = 0; at < siemens.length; at += 1) {
    const g = siemens[at] ?? 0;
    const a = from[at] ?? 0;
    const b = to[at] ?? 0;
    if (a === b) continue;
    pivot[a] = (pivot[a] ?? 0) + g;
    pivot[b] = (pivot[b] ?? 0) + g;
    if (a === 0 || b === 0) continue;
    const entry = a < b ? LADDER_REACH * b + (b - a - 1) : LADDER_REACH * a + (a - b - 1);
    below[entry] = (below[entry] ?? 0) - g;
  }
  const vanished = eliminate(pivot, below);
  return { vanished, substitute: (x) => substitute(pivot, below, x) };
}

/** L · D · Lᵀ in place: `below` becomes the entries of L, `pivot` one over D. */
function eliminate(pivot: Float64Array, below: Float64Array): number {
  let largest = 0;
  for (let i = 1; i < pivot.length; i += 1) largest = Math.max(largest, pivot[i] ?? 0);
  const least = SINGULAR * largest;
  let inverse1 = 0;
  let inverse2 = 0;
  let nearBefore = 0;
  for (let i = 1; i < pivot.length; i += 1) {
    const e = below[2 * i + 1] ?? 0;
    const c = (below[2 * i] ?? 0) - e * nearBefore;
    const near = c * inverse1;
    const far = e * inverse2;
    const d = (pivot[i] ?? 0) - c * near - e * far;
    if (!(d > least)) return i;
    inverse2 = inverse1;
    inverse1 = 1 / d;
    nearBefore = near;
    below[2 * i] = near;
    below[2 * i + 1] = far;
    pivot[i] = inverse1;
  }
  return 0;
}

/** Solves L · D · Lᵀ · x = b in place. Nothing is made in these loops: they are the innermost of everything that is solved. */
function substitute(inverse: Float64Array, below: Float64Array, x: Float64Array): void {
  let x1 = 0;
  let x2 = 0;
  for (let i = 1; i < x.length; i += 1) {
    const value = (x[i] ?? 0) - (below[2 * i] ?? 0) * x1 - (below[2 * i + 1] ?? 0) * x2;
    x[i] = value;
    x2 = x1;
    x1 = value;
  }
  x1 = 0;
  x2 = 0;
  let near1 = 0;
  let far1 = 0;
  let far2 = 0;
  for (let i = x.length - 1; i > 0; i -= 1) {
    const value = (x[i] ?? 0) * (inverse[i] ?? 0) - near1 * x1 - far2 * x2;
    x[i] = value;
    x2 = x1;
    x1 = value;
    near1 = below[2 * i] ?? 0;
    far2 = far1;
    far1 = below[2 * i + 1] ?? 0;
  }
}
