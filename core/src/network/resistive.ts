import { Arena } from './arena.ts';
import { type Conductances, reachOf } from './conductances.ts';
import { factorLadder, LADDER_REACH, ladderWords } from './ladder.ts';
import { factorSkyline, skylineWords } from './skyline.ts';

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

/** What a source gives at these node voltages, A: I = (EMF − U) / R. */
export const sourceA = ({ plus, minus, emfV, ohm }: Source, voltages: Float64Array): number =>
  (emfV - (voltages[plus] ?? 0) + (voltages[minus] ?? 0)) / ohm;

/** A network made ready: each answer more costs one pass over the nodes. */
export interface Prepared {
  readonly ok: true;
  /** Node voltages with every source at work and nothing drawn, written to `voltage`. */
  readonly open: (voltage: Float64Array) => void;
  /** Node voltages for 1 A put in at `plus` and taken out at `minus`, as if every source were short-circuited behind its resistance. */
  readonly respond: (plus: number, minus: number, voltage: Float64Array) => void;
}

/**
 * How often a network that is no ladder is solved: the second time for what the first has left over, which takes the rounding of
 * badly matched resistances out of the answer.
 */
const PASSES_OF_ANY = 2;

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

/** A network as plain arrays: what follows runs over them several times. */
interface Assembled {
  readonly conductances: Conductances;
  /** Of each source. */
  readonly emfV: Float64Array;
  /** Place of each node; undefined where each node is a place of its own. */
  readonly placeOf: Int32Array | undefined;
}

/** A resistance of nought has no conductance to write down; its ends are one place instead. */
function assemble(
  { nodeCount, resistors, sources }: ResistiveNetwork,
  arena: Arena,
): Assembled | NetworkProblem {
  const count = resistors.length + sources.length;
  const from = arena.wholes(count);
  const to = arena.wholes(count);
  const siemens = arena.floats(count);
  const emfs = arena.floats(sources.length);
  let hasJoined = false;
  let at = 0;
  for (const { from: a, to: b, ohm } of resistors) {
    if (isBad(ohm)) return { kind: 'bad-resistance', part: 'resistor', index: at };
    from[at] = a;
    to[at] = b;
    if (ohm > 0) siemens[at] = 1 / ohm;
    else hasJoined = true;
    at += 1;
  }
  let index = 0;
  for (const { plus, minus, emfV, ohm } of sources) {
    if (isBad(ohm) || !Number.isFinite(emfV)) return { kind: 'bad-resistance', part: 'source', index };
    if (ohm === 0) return { kind: 'ideal-source', index };
    from[at] = plus;
    to[at] = minus;
    siemens[at] = 1 / ohm;
    emfs[index] = emfV;
    at += 1;
    index += 1;
  }
  const conductances = { places: nodeCount, from, to, siemens };
  return hasJoined
    ? { ...joinEnds(conductances), emfV: emfs }
    : { conductances, emfV: emfs, placeOf: undefined };
}

/** Makes the ends of each resistance of nought one place, and turns ends from nodes into places. */
function joinEnds({
  places: nodeCount,
  from,
  to,
  siemens,
}: Conductances): Pick<Assembled, 'conductances' | 'placeOf'> {
  const parents = Int32Array.from({ length: nodeCount }, (_, node) => node);
  for (let at = 0; at < siemens.length; at += 1) {
    if (siemens[at] !== 0) continue;
    const a = rootOf(parents, from[at] ?? 0);
    const b = rootOf(parents, to[at] ?? 0);
    if (a !== b) parents[Math.max(a, b)] = Math.min(a, b);
  }
  const placeOf = new Int32Array(nodeCount);
  let places = 0;
  for (let node = 0; node < nodeCount; node += 1) {
    const root = rootOf(parents, node);
    placeOf[node] = root === node ? places++ : (placeOf[root] ?? 0);
  }
  for (let at = 0; at < siemens.length; at += 1) {
    from[at] = placeOf[from[at] ?? 0] ?? 0;
    to[at] = placeOf[to[at] ?? 0] ?? 0;
  }
  return { conductances: { places, from, to, siemens }, placeOf };
}

/** Spreads values by place over the nodes, in place: a node never stands before its place. */
function spread(placeOf: Int32Array, values: Float64Array): void {
  for (let node = values.length - 1; node > 0; node -= 1) values[node] = values[placeOf[node] ?? 0] ?? 0;
}

/**
 * Voltages with nothing drawn, guessed: each source at its full voltage, conductors without a drop. What is then solved for is
 * the departure from the guess, so that a bank near rest is not the small difference of large numbers.
 */
function guessAtRest({ conductances: { from, to }, emfV }: Assembled, voltage: Float64Array): void {
  const resistors = from.length - emfV.length;
  for (let at = 0; at < emfV.length; at += 1)
    voltage[from[resistors + at] ?? 0] = (voltage[to[resistors + at] ?? 0] ?? 0) + (emfV[at] ?? 0);
  for (let at = 0; at < resistors; at += 1) voltage[from[at] ?? 0] = voltage[to[at] ?? 0] ?? 0;
  voltage[0] = 0;
}

/** Writes to `net` what flows into each place at these voltages, A, with the sources at work or short-circuited. */
function netFlows(
  { conductances, emfV }: Assembled,
  atWork: boolean,
  voltage: Float64Array,
  net: Float64Array,
): void {
  const { from, to, siemens } = conductances;
  const firstSource = atWork ? siemens.length - emfV.length : siemens.length;
  net.fill(0);
  for (let at = 0; at < siemens.length; at += 1) {
    const a = from[at] ?? 0;
    const b = to[at] ?? 0;
    const emf = at < firstSource ? 0 : (emfV[at - firstSource] ?? 0);
    const ampere = (siemens[at] ?? 0) * ((voltage[a] ?? 0) - (voltage[b] ?? 0) - emf);
    net[a] = (net[a] ?? 0) - ampere;
    net[b] = (net[b] ?? 0) + ampere;
  }
  net[0] = 0;
}

/** Words of memory that making a network ready takes, the entries of a matrix that is no ladder aside. */
export const wordsFor = ({ nodeCount, resistors, sources }: ResistiveNetwork): number =>
  2 * (resistors.length + sources.length + 2) +
  sources.length +
  Math.max(ladderWords(nodeCount), skylineWords(nodeCount)) +
  nodeCount;

/**
 * Makes a network of resistors and real sources ready for solving: nodal analysis, G · V = I, with G symmetric and positive
 * where every node has a way to the reference. Resistances of nought join their ends. What has no answer says why and where.
 */
export function prepare(
  network: ResistiveNetwork,
  arena: Arena = Arena.ofWords(wordsFor(network)),
): Prepared | { readonly ok: false; readonly problem: NetworkProblem } {
  const assembled = assemble(network, arena);
  if ('kind' in assembled) return { ok: false, problem: assembled };
  const { conductances, placeOf } = assembled;
  const isLadder = reachOf(conductances) <= LADDER_REACH;
  const { vanished, substitute } = (isLadder ? factorLadder : factorSkyline)(conductances, arena);
  const passes = isLadder ? 1 : PASSES_OF_ANY;
  if (vanished > 0)
    return { ok: false, problem: { kind: 'no-reference', node: placeOf?.indexOf(vanished) ?? vanished } };
  const departure = arena.floats(conductances.places);
  const depart = (voltage: Float64Array): void => {
    substitute(departure);
    for (let at = 1; at < departure.length; at += 1) voltage[at] = (voltage[at] ?? 0) + (departure[at] ?? 0);
  };
  const feed = (plus: number, minus: number): void => {
    departure[plus] = (departure[plus] ?? 0) + 1;
    departure[minus] = (departure[minus] ?? 0) - 1;
    departure[0] = 0;
  };
  return {
    ok: true,
    open: (voltage) => {
      voltage.fill(0);
      guessAtRest(assembled, voltage);
      for (let pass = 0; pass < passes; pass += 1) {
        netFlows(assembled, true, voltage, departure);
        depart(voltage);
      }
      if (placeOf !== undefined) spread(placeOf, voltage);
    },
    respond: (plus, minus, voltage) => {
      const [a, b] = [placeOf?.[plus] ?? plus, placeOf?.[minus] ?? minus];
      voltage.fill(0);
      for (let pass = 0; pass < passes; pass += 1) {
        if (pass === 0) departure.fill(0);
        else netFlows(assembled, false, voltage, departure);
        feed(a, b);
        depart(voltage);
      }
      if (placeOf !== undefined) spread(placeOf, voltage);
    },
  };
}
