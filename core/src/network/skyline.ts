import type { Arena } from './arena.ts';
import { type Conductances, type Factored, SINGULAR } from './conductances.ts';

/** The lower triangle of a symmetric matrix, each row kept from its first entry on to the diagonal. */
interface Skyline {
  readonly places: number;
  readonly first: Int32Array;
  /** Where column 0 of each row would stand, so that entry (i, j) stands at offset[i] + j. */
  readonly offset: Int32Array;
  readonly values: Float64Array;
  /** One over each pivot, once it is factored: multiplying is quicker than dividing. */
  readonly inverse: Float64Array;
}

/** The matrix of the conductances: each row reaches back to the earliest place that it is joined with. */
function assemble({ places, from, to, siemens }: Conductances, arena: Arena): Skyline {
  const first = arena.wholes(places);
  for (let at = 0; at < places; at += 1) first[at] = at;
  for (let at = 0; at < siemens.length; at += 1) {
    const low = Math.min(from[at] ?? 0, to[at] ?? 0);
    const high = Math.max(from[at] ?? 0, to[at] ?? 0);
    if (low > 0) first[high] = Math.min(first[high] ?? high, low);
  }
  const offset = arena.wholes(places);
  let size = 0;
  for (let at = 0; at < places; at += 1) {
    const back = first[at] ?? at;
    offset[at] = size - back;
    size += at - back + 1;
  }
  const values = new Float64Array(size);
  const add = (row: number, column: number, value: number): void => {
    const at = (offset[row] ?? 0) + column;
    values[at] = (values[at] ?? 0) + value;
  };
  for (let at = 0; at < siemens.length; at += 1) {
    const low = Math.min(from[at] ?? 0, to[at] ?? 0);
    const high = Math.max(from[at] ?? 0, to[at] ?? 0);
    const g = siemens[at] ?? 0;
    if (low === high) continue;
    add(high, high, g);
    add(low, low, g);
    if (low > 0) add(high, low, -g);
  }
  return { places, first, offset, values, inverse: arena.floats(places) };
}

/**
 * Factors the matrix in place as L · D · Lᵀ (skyline elimination: only from each row's first entry on, so the cost grows with
 * the rows where all reach equally far). Returns the place whose pivot vanishes beside the size of the matrix, or 0.
 */
function eliminate({ places, first, offset, values, inverse }: Skyline): number {
  let largest = 0;
  for (let at = 1; at < places; at += 1) largest = Math.max(largest, values[(offset[at] ?? 0) + at] ?? 0);
  for (let i = 1; i < places; i += 1) {
    const startI = first[i] ?? i;
    const rowI = offset[i] ?? 0;
    for (let j = startI; j < i; j += 1) {
      const rowJ = offset[j] ?? 0;
      const from = Math.max(startI, first[j] ?? j);
      let sum = values[rowI + j] ?? 0;
      for (let k = from; k < j; k += 1) sum -= (values[rowI + k] ?? 0) * (values[rowJ + k] ?? 0);
      values[rowI + j] = sum;
    }
    let pivot = values[rowI + i] ?? 0;
    for (let k = startI; k < i; k += 1) {
      const entry = values[rowI + k] ?? 0;
      const lower = entry * (inverse[k] ?? 0);
      pivot -= lower * entry;
      values[rowI + k] = lower;
    }
    if (!(pivot > SINGULAR * largest)) return i;
    values[rowI + i] = pivot;
    inverse[i] = 1 / pivot;
  }
  return 0;
}

/** Solves L · D · Lᵀ · x = b in place. Nothing is made in these loops. */
function substitute({ places, first, offset, values, inverse }: Skyline, x: Float64Array): void {
  for (let i = 1; i < places; i += 1) {
    const rowI = offset[i] ?? 0;
    let sum = x[i] ?? 0;
    for (let k = first[i] ?? i; k < i; k += 1) sum -= (values[rowI + k] ?? 0) * (x[k] ?? 0);
    x[i] = sum;
  }
  for (let i = 1; i < places; i += 1) x[i] = (x[i] ?? 0) * (inverse[i] ?? 0);
  for (let i = places - 1; i > 0; i -= 1) {
    const rowI = offset[i] ?? 0;
    const known = x[i] ?? 0;
    for (let k = first[i] ?? i; k < i; k += 1) x[k] = (x[k] ?? 0) - (values[rowI + k] ?? 0) * known;
  }
}

/** Words of memory that factoring takes, the entries of the matrix aside: their number is known when the rows are. */
export const skylineWords = (places: number): number => 2 * (places + 2);

/** Factors the conductances of any network. */
export function factorSkyline(conductances: Conductances, arena: Arena): Factored {
  const matrix = assemble(conductances, arena);
  return { vanished: eliminate(matrix), substitute: (x) => substitute(matrix, x) };
}
