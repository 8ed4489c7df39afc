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

function firstBad({ resistors, sources }: ResistiveNetwork): NetworkProblem | undefined {
  const isBad = (ohm: number): boolean => !(ohm >= 0 && ohm < Infinity);
  for (let index = 0; index < resistors.length; index += 1)
    if (isBad(resistors[index]?.ohm ?? -1)) return { kind: 'bad-resistance', part: 'resistor', index };
  for (let index = 0; index < sources.length; index += 1) {
    const source = sources[index];
    if (source === undefined || isBad(source.ohm) || !Number.isFinite(source.emfV))
      return { kind: 'bad-resistance', part: 'source', index };
    if (source.ohm === 0) return { kind: 'ideal-source', index };
  }
  return undefined;
}

/** Numbers the unknown nodes: joined nodes share a number, the reference and what is joined to it is -1. */
function numberNodes({ nodeCount, resistors }: ResistiveNetwork): { row: Int32Array; rows: number } {
  const parents = new Int32Array(nodeCount);
  for (let node = 0; node < nodeCount; node += 1) parents[node] = node;
  for (const { from, to, ohm } of resistors) {
    if (ohm > 0) continue;
    const a = rootOf(parents, from);
    const b = rootOf(parents, to);
    if (a !== b) parents[Math.max(a, b)] = Math.min(a, b);
  }
  const row = new Int32Array(nodeCount).fill(-1);
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
}

/** Widens the row of the later of two nodes so that it reaches back to the earlier one. */
function reach(first: Int32Array, a: number, b: number): void {
  if (a < 0 || b < 0) return;
  const high = a < b ? b : a;
  const low = a < b ? a : b;
  if (low < (first[high] ?? high)) first[high] = low;
}

function emptySkyline(rows: number, { resistors, sources }: ResistiveNetwork, row: Int32Array): Skyline {
  const first = new Int32Array(rows);
  for (let at = 0; at < rows; at += 1) first[at] = at;
  for (const { from, to } of resistors) reach(first, row[from] ?? -1, row[to] ?? -1);
  for (const { plus, minus } of sources) reach(first, row[plus] ?? -1, row[minus] ?? -1);
  const offset = new Int32Array(rows);
  let size = 0;
  for (let at = 0; at < rows; at += 1) {
    offset[at] = size - (first[at] ?? at);
    size += at - (first[at] ?? at) + 1;
  }
  return { rows, first, offset, values: new Float64Array(size) };
}

function addConductance({ values, offset }: Skyline, a: number, b: number, siemens: number): void {
  if (a === b) return;
  if (a >= 0) values[(offset[a] ?? 0) + a] = (values[(offset[a] ?? 0) + a] ?? 0) + siemens;
  if (b >= 0) values[(offset[b] ?? 0) + b] = (values[(offset[b] ?? 0) + b] ?? 0) + siemens;
  if (a < 0 || b < 0) return;
  const high = a < b ? b : a;
  const low = a < b ? a : b;
  values[(offset[high] ?? 0) + low] = (values[(offset[high] ?? 0) + low] ?? 0) - siemens;
}

/**
 * Factors the matrix in place as L · D · Lᵀ (skyline elimination: only from each row's first entry on, so the cost grows with
 * the rows for a ladder of any length). Returns the row whose pivot vanishes beside the size of the matrix, or -1.
 */
function factor({ rows, first, offset, values }: Skyline): number {
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
      const lower = (values[rowI + k] ?? 0) / (values[(offset[k] ?? 0) + k] ?? 1);
      pivot -= lower * (values[rowI + k] ?? 0);
      values[rowI + k] = lower;
    }
    if (!(pivot > SINGULAR * largest)) return i;
    values[rowI + i] = pivot;
  }
  return -1;
}

/** Solves L · D · Lᵀ · x = b in place. */
function substitute({ rows, first, offset, values }: Skyline, x: Float64Array): void {
  for (let i = 0; i < rows; i += 1) {
    const rowI = offset[i] ?? 0;
    let sum = x[i] ?? 0;
    for (let k = first[i] ?? i; k < i; k += 1) sum -= (values[rowI + k] ?? 0) * (x[k] ?? 0);
    x[i] = sum;
  }
  for (let i = 0; i < rows; i += 1) x[i] = (x[i] ?? 0) / (values[(offset[i] ?? 0) + i] ?? 1);
  for (let i = rows - 1; i >= 0; i -= 1) {
    const rowI = offset[i] ?? 0;
    const known = x[i] ?? 0;
    for (let k = first[i] ?? i; k < i; k += 1) x[k] = (x[k] ?? 0) - (values[rowI + k] ?? 0) * known;
  }
}

/**
 * Makes a network of resistors and real sources ready for solving: nodal analysis, G · V = I, with G symmetric and positive
 * where every node has a way to the reference. Resistances of nought join their ends. What has no answer says why and where.
 */
export function prepare(
  network: ResistiveNetwork,
): Prepared | { readonly ok: false; readonly problem: NetworkProblem } {
  const bad = firstBad(network);
  if (bad !== undefined) return { ok: false, problem: bad };
  const { row, rows } = numberNodes(network);
  const at = (node: number): number => row[node] ?? -1;
  const matrix = emptySkyline(rows, network, row);
  const shortCircuit = new Float64Array(rows);
  for (const { from, to, ohm } of network.resistors)
    if (ohm > 0) addConductance(matrix, at(from), at(to), 1 / ohm);
  for (const { plus, minus, emfV, ohm } of network.sources) {
    const [p, m] = [at(plus), at(minus)];
    addConductance(matrix, p, m, 1 / ohm);
    if (p >= 0) shortCircuit[p] = (shortCircuit[p] ?? 0) + emfV / ohm;
    if (m >= 0) shortCircuit[m] = (shortCircuit[m] ?? 0) - emfV / ohm;
  }
  const vanished = factor(matrix);
  if (vanished >= 0) return { ok: false, problem: { kind: 'no-reference', node: row.indexOf(vanished) } };
  const work = new Float64Array(rows);
  return {
    ok: true,
    solve: (injectedA, voltage) => {
      work.set(shortCircuit);
      for (let node = 1; node < network.nodeCount; node += 1) {
        const place = row[node] ?? -1;
        if (place >= 0) work[place] = (work[place] ?? 0) + (injectedA[node] ?? 0);
      }
      substitute(matrix, work);
      for (let node = 0; node < network.nodeCount; node += 1) {
        const place = row[node] ?? -1;
        voltage[node] = place < 0 ? 0 : (work[place] ?? 0);
      }
    },
  };
}
