import { Arena } from './arena.ts';

/** A conductor between two nodes, ohm. Nought is allowed: its ends are then one node. */
export interface Resistor {
  readonly from: number;
  readonly to: number;
  readonly ohm: number;
}

/** A source with its inner resistance: `emfV` lifts `plus` above `minus` when no current flows. */
export interface Source {
  readonly plus: number;
  readonly minus: number;
  readonly emfV: number;
  readonly ohm: number;
}

/** Nodes are numbered from 0; node 0 is the reference at 0 V. Neighbours with near numbers keep the solution fast. */
export interface ResistiveNetwork {
  readonly nodeCount: number;
  readonly resistors: readonly Resistor[];
  readonly sources: readonly Source[];
}

/** Why a network has no answer; a closed list. `node` or `index` says where. */
export type NetworkProblem =
  | { readonly kind: 'bad-resistance'; readonly part: 'resistor' | 'source'; readonly index: number }
  | { readonly kind: 'ideal-source'; readonly index: number }
  | { readonly kind: 'no-reference'; readonly node: number };

/** A network made ready: each new set of injected currents costs one pass over the nodes. */
export interface Prepared {
  readonly ok: true;
  /** Node voltages for the sources and the injected currents (A into each node), written to `voltage`. */
  readonly solve: (injectedA: Float64Array, voltage: Float64Array) => void;
  /** The same for the injected currents alone, as if every source were short-circuited behind its resistance. */
  readonly respond: (injectedA: Float64Array, voltage: Float64Array) => void;
}

/** A pivot this small beside the largest conductance means that a part of the network hangs in the air. */
const SINGULAR = 1e-12;

/** Follows the marks to the node that stands for all nodes joined to it. */
function rootOf(parents: Int32Array, node: number): number {
  let at = node;
  while (parents[at] !== at) {
    parents[at] = parents[parents[at] ?? at] ?? at;
    at = parents[at] ?? at;
  }
  return at;
}

/** Why a value cannot be a resistance of a part, or undefined where it can. */
const isBad = (ohm: number): boolean => !(ohm >= 0 && ohm < Infinity);

/** Resistors, then sources, as plain arrays: what follows runs over them several times. */
interface Parts {
  readonly from: Int32Array;
  readonly to: Int32Array;
  /** 0 for a resistance of nought, whose ends are one node. */
  readonly siemens: Float64Array;
  readonly hasJoined: boolean;
}

function partsOf({ resistors, sources }: ResistiveNetwork, arena: Arena): Parts | NetworkProblem {
  const count = resistors.length + sources.length;
  const from = arena.wholes(count);
  const to = arena.wholes(count);
  const siemens = arena.floats(count);
  let hasJoined = false;
  let at = 0;
  for (const one of resistors) {
    if (isBad(one.ohm)) return { kind: 'bad-resistance', part: 'resistor', index: at };
    from[at] = one.from;
    to[at] = one.to;
    if (one.ohm > 0) siemens[at] = 1 / one.ohm;
    else hasJoined = true;
    at += 1;
  }
  for (const one of sources) {
    const index = at - resistors.length;
    if (isBad(one.ohm) || !Number.isFinite(one.emfV))
      return { kind: 'bad-resistance', part: 'source', index };
    if (one.ohm === 0) return { kind: 'ideal-source', index };
    from[at] = one.plus;
    to[at] = one.minus;
    siemens[at] = 1 / one.ohm;
    at += 1;
  }
  return { from, to, siemens, hasJoined };
}

/** Numbers the unknown nodes: joined nodes share a number, the reference and what is joined to it is -1. */
function numberNodes(
  nodeCount: number,
  { from, to, siemens, hasJoined }: Parts,
  arena: Arena,
): { row: Int32Array; rows: number } {
  const row = arena.wholes(nodeCount);
  if (!hasJoined) {
    for (let node = 0; node < nodeCount; node += 1) row[node] = node - 1;
    return { row, rows: nodeCount - 1 };
  }
  const parents = row.map((_, node) => node);
  for (let at = 0; at < siemens.length; at += 1) {
    if (siemens[at] !== 0) continue;
    const a = rootOf(parents, from[at] ?? 0);
    const b = rootOf(parents, to[at] ?? 0);
    if (a !== b) parents[Math.max(a, b)] = Math.min(a, b);
  }
  row[0] = -1;
  let rows = 0;
  for (let node = 1; node < nodeCount; node += 1) {
    const root = rootOf(parents, node);
    if (root === node) row[node] = rows++;
    else row[node] = row[root] ?? -1;
  }
  return { row, rows };
}

/** The lower triangle of a symmetric matrix, each row kept from its first entry on to the diagonal. */
interface Skyline {
  readonly rows: number;
  readonly first: Int32Array;
  /** Place of column 0 of each row, so that entry (i, j) stands at offset[i] + j. */
  readonly offset: Int32Array;
  readonly values: Float64Array;
  /** One over each pivot, once it is factored: multiplying is quicker than dividing. */
  readonly inverse: Float64Array;
}

/** The matrix of the conductances: each row reaches back to the earliest node that it is joined with. */
function conductances(rows: number, { from, to, siemens }: Parts, row: Int32Array, arena: Arena): Skyline {
  const first = arena.wholes(rows);
  for (let at = 0; at < rows; at += 1) first[at] = at;
  for (let at = 0; at < siemens.length; at += 1) {
    const a = row[from[at] ?? 0] ?? -1;
    const b = row[to[at] ?? 0] ?? -1;
    if (a < 0 || b < 0) continue;
    if (a < b) first[b] = Math.min(first[b] ?? b, a);
    else first[a] = Math.min(first[a] ?? a, b);
  }
  const offset = arena.wholes(rows);
  let size = 0;
  for (let at = 0; at < rows; at += 1) {
    const back = first[at] ?? at;
    offset[at] = size - back;
    size += at - back + 1;
  }
  const values = new Float64Array(size);
  for (let at = 0; at < siemens.length; at += 1) {
    const g = siemens[at] ?? 0;
    const a = row[from[at] ?? 0] ?? -1;
    const b = row[to[at] ?? 0] ?? -1;
    if (g === 0 || a === b) continue;
    if (a >= 0) values[(offset[a] ?? 0) + a] = (values[(offset[a] ?? 0) + a] ?? 0) + g;
    if (b >= 0) values[(offset[b] ?? 0) + b] = (values[(offset[b] ?? 0) + b] ?? 0) + g;
    if (a < 0 || b < 0) continue;
    const place = a < b ? (offset[b] ?? 0) + a : (offset[a] ?? 0) + b;
    values[place] = (values[place] ?? 0) - g;
  }
  return { rows, first, offset, values, inverse: arena.floats(rows) };
}

/**
 * Factors the matrix in place as L · D · Lᵀ (skyline elimination: only from each row's first entry on, so the cost grows with
 * the rows for a ladder of any length). Returns the row whose pivot vanishes beside the size of the matrix, or -1.
 */
function factor({ rows, first, offset, values, inverse }: Skyline): number {
  let largest = 0;
  for (let at = 0; at < rows; at += 1)
    largest = Math.max(largest, Math.abs(values[(offset[at] ?? 0) + at] ?? 0));
  for (let i = 0; i < rows; i += 1) {
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
  return -1;
}

/** Solves L · D · Lᵀ · x = b in place. These loops are the innermost of everything that is solved: nothing is made in them. */
function substitute({ rows, first, offset, values, inverse }: Skyline, x: Float64Array): void {
  for (let i = 0; i < rows; i += 1) {
    const rowI = offset[i] ?? 0;
    let sum = x[i] ?? 0;
    for (let k = first[i] ?? i; k < i; k += 1) sum -= (values[rowI + k] ?? 0) * (x[k] ?? 0);
    x[i] = sum;
  }
  for (let i = 0; i < rows; i += 1) x[i] = (x[i] ?? 0) * (inverse[i] ?? 0);
  for (let i = rows - 1; i >= 0; i -= 1) {
    const rowI = offset[i] ?? 0;
    const known = x[i] ?? 0;
    for (let k = first[i] ?? i; k < i; k += 1) x[k] = (x[k] ?? 0) - (values[rowI + k] ?? 0) * known;
  }
}

/** Words of memory that making a network ready takes, its matrix aside. */
export const wordsFor = ({ nodeCount, resistors, sources }: ResistiveNetwork): number =>
  2 * (resistors.length + sources.length + 2) + 5 * (nodeCount + 2);

/**
 * Makes a network of resistors and real sources ready for solving: nodal analysis, G · V = I, with G symmetric and positive
 * where every node has a way to the reference. Resistances of nought join their ends. What has no answer says why and where.
 */
export function prepare(
  network: ResistiveNetwork,
  arena: Arena = new Arena(wordsFor(network)),
): Prepared | { readonly ok: false; readonly problem: NetworkProblem } {
  const parts = partsOf(network, arena);
  if ('kind' in parts) return { ok: false, problem: parts };
  const { row, rows } = numberNodes(network.nodeCount, parts, arena);
  const matrix = conductances(rows, parts, row, arena);
  const shortCircuit = arena.floats(rows);
  for (const { plus, minus, emfV, ohm } of network.sources) {
    const [p, m] = [row[plus] ?? -1, row[minus] ?? -1];
    if (p >= 0) shortCircuit[p] = (shortCircuit[p] ?? 0) + emfV / ohm;
    if (m >= 0) shortCircuit[m] = (shortCircuit[m] ?? 0) - emfV / ohm;
  }
  const vanished = factor(matrix);
  if (vanished >= 0) return { ok: false, problem: { kind: 'no-reference', node: row.indexOf(vanished) } };
  const work = arena.floats(rows);
  const { hasJoined } = parts;
  const solved = (injectedA: Float64Array, voltage: Float64Array): void => {
    for (let node = 1; node < network.nodeCount; node += 1) {
      const place = hasJoined ? (row[node] ?? -1) : node - 1;
      if (place >= 0) work[place] = (work[place] ?? 0) + (injectedA[node] ?? 0);
    }
    substitute(matrix, work);
    voltage[0] = 0;
    if (hasJoined)
      for (let node = 1; node < network.nodeCount; node += 1) {
        const place = row[node] ?? -1;
        voltage[node] = place < 0 ? 0 : (work[place] ?? 0);
      }
    else voltage.set(work, 1);
  };
  return {
    ok: true,
    solve: (injectedA, voltage) => {
      work.set(shortCircuit);
      solved(injectedA, voltage);
    },
    respond: (injectedA, voltage) => {
      work.fill(0);
      solved(injectedA, voltage);
    },
  };
}
