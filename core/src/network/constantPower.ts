import { type Arena, onLentArena } from './arena.ts';
import { type NetworkProblem, prepare, type ResistiveNetwork, sourceA, wordsFor } from './resistive.ts';

/** Something that draws a constant power from two nodes through leads of its own. */
export interface PowerTap {
  readonly plus: number;
  readonly minus: number;
  readonly leadOhm: number;
  readonly powerW: number;
}

export interface TapAnswer {
  readonly currentA: number;
  /** At its own terminals, behind its leads. */
  readonly voltageV: number;
}

export type PowerAnswer =
  | {
      readonly kind: 'solved';
      /** What each source gives. */
      readonly sourcesA: readonly number[];
      readonly taps: readonly TapAnswer[];
      /** Voltage of each node against the reference. */
      readonly nodesV: Float64Array;
      readonly iterations: number;
    }
  /** The network cannot give the power asked for; so much of it, in all, it could. */
  | { readonly kind: 'too-much'; readonly deliverableW: number; readonly iterations: number }
  | { readonly kind: 'no-answer'; readonly problem: NetworkProblem };

/** Newton steps at most, and when two in a row are the same to this share of the current. */
const MOST_STEPS = 60;
const SETTLED = 1e-12;
/** How closely the deliverable power is found, as a share of what was asked. */
const DELIVERABLE = 1e-6;

/** What the taps see of the network: V = open − transfer · I. */
interface SeenByTaps {
  readonly openV: Float64Array;
  /** Row by row. */
  readonly transferOhm: Float64Array;
  /** Room for one step of the iteration. */
  readonly matrix: Float64Array;
  readonly rest: Float64Array;
}

/** Solves a · x = b for a small full matrix, in place, with the largest pivot of each column. False where it is singular. */
function solveSmall(a: Float64Array, b: Float64Array): boolean {
  const n = b.length;
  for (let column = 0; column < n; column += 1) {
    let best = column;
    for (let row = column + 1; row < n; row += 1)
      if (Math.abs(a[row * n + column] ?? 0) > Math.abs(a[best * n + column] ?? 0)) best = row;
    const pivot = a[best * n + column] ?? 0;
    if (pivot === 0) return false;
    if (best !== column) {
      for (let k = column; k < n; k += 1) {
        const kept = a[column * n + k] ?? 0;
        a[column * n + k] = a[best * n + k] ?? 0;
        a[best * n + k] = kept;
      }
      const kept = b[column] ?? 0;
      b[column] = b[best] ?? 0;
      b[best] = kept;
    }
    for (let row = column + 1; row < n; row += 1) {
      const share = (a[row * n + column] ?? 0) / pivot;
      if (share === 0) continue;
      for (let k = column; k < n; k += 1)
        a[row * n + k] = (a[row * n + k] ?? 0) - share * (a[column * n + k] ?? 0);
      b[row] = (b[row] ?? 0) - share * (b[column] ?? 0);
    }
  }
  for (let row = n - 1; row >= 0; row -= 1) {
    let sum = b[row] ?? 0;
    for (let k = row + 1; k < n; k += 1) sum -= (a[row * n + k] ?? 0) * (b[k] ?? 0);
    b[row] = sum / (a[row * n + row] ?? 1);
  }
  return true;
}

/**
 * Currents of all taps for a share of the power asked for, by Newton's method on V_i · I_i = P_i from the side of high voltage:
 * V · I bends downwards, so from there the steps rise towards the answer and do not pass it. Undefined where there is no such
 * point, because the power is more than the network gives.
 */
function settle(
  { openV, transferOhm, matrix, rest }: SeenByTaps,
  powerW: readonly number[],
  share: number,
  current: Float64Array,
): number | undefined {
  const n = powerW.length;
  for (let i = 0; i < n; i += 1) current[i] = ((powerW[i] ?? 0) * share) / (openV[i] ?? 1);
  for (let step = 1; step <= MOST_STEPS; step += 1) {
    for (let i = 0; i < n; i += 1) {
      let voltage = openV[i] ?? 0;
      for (let j = 0; j < n; j += 1) voltage -= (transferOhm[i * n + j] ?? 0) * (current[j] ?? 0);
      if (!(voltage > 0)) return undefined;
      rest[i] = (powerW[i] ?? 0) * share - voltage * (current[i] ?? 0);
      for (let j = 0; j < n; j += 1)
        matrix[i * n + j] = (i === j ? voltage : 0) - (current[i] ?? 0) * (transferOhm[i * n + j] ?? 0);
    }
    if (!solveSmall(matrix, rest)) return undefined;
    let moved = 0;
    let size = 1e-9;
    for (let i = 0; i < n; i += 1) {
      current[i] = (current[i] ?? 0) + (rest[i] ?? 0);
      moved = Math.max(moved, Math.abs(rest[i] ?? 0));
      size = Math.max(size, Math.abs(current[i] ?? 0));
    }
    if (!Number.isFinite(moved)) return undefined;
    if (moved <= SETTLED * size) return step;
  }
  return undefined;
}

/** From so many taps on a step of Newton's costs more than several of the plain kind. */
const MANY_TAPS = 9;

/**
 * The same by plain steps, I_i = P_i / V_i(I), from the side of high voltage: they rise towards the answer and do not pass it, each at
 * the cost of one product. Undefined where they have not settled, because the sag is large or the power is too much.
 */
function relax(
  { openV, transferOhm, rest }: SeenByTaps,
  powerW: readonly number[],
  current: Float64Array,
): number | undefined {
  const n = powerW.length;
  for (let i = 0; i < n; i += 1) current[i] = (powerW[i] ?? 0) / (openV[i] ?? 1);
  for (let step = 1; step <= MOST_STEPS; step += 1) {
    let moved = 0;
    let size = 1e-9;
    for (let i = 0; i < n; i += 1) {
      let voltage = openV[i] ?? 0;
      for (let j = 0; j < n; j += 1) voltage -= (transferOhm[i * n + j] ?? 0) * (current[j] ?? 0);
      if (!(voltage > 0)) return undefined;
      rest[i] = (powerW[i] ?? 0) / voltage;
      moved = Math.max(moved, Math.abs((rest[i] ?? 0) - (current[i] ?? 0)));
      size = Math.max(size, Math.abs(rest[i] ?? 0));
    }
    current.set(rest);
    if (moved <= SETTLED * size) return step;
  }
  return undefined;
}

/** The largest power in the same proportions, found by halving. */
function deliverable(seen: SeenByTaps, powerW: readonly number[], current: Float64Array): number {
  let low = 0;
  let high = 1;
  while (high - low > DELIVERABLE) {
    const middle = (low + high) / 2;
    if (settle(seen, powerW, middle, current) === undefined) high = middle;
    else low = middle;
  }
  return low * powerW.reduce((sum, one) => sum + one, 0);
}

const across = (voltage: Float64Array, tap: PowerTap | undefined): number =>
  tap === undefined ? 0 : (voltage[tap.plus] ?? 0) - (voltage[tap.minus] ?? 0);

/** How a network answers its taps: with nothing drawn, and for 1 A drawn at each. It follows from resistances and sources alone. */
interface Answers {
  readonly taps: readonly Pick<PowerTap, 'plus' | 'minus' | 'leadOhm'>[];
  readonly openVoltages: Float64Array;
  /** Node voltages for 1 A drawn at each tap. */
  readonly drops: readonly Float64Array[];
  readonly openV: Float64Array;
  readonly transferOhm: Float64Array;
}

/** Networks are never changed once they are made, so what was worked out for one holds for every load on it. */
const worked = new WeakMap<ResistiveNetwork, Answers>();

const sameTaps = (known: Answers['taps'], taps: readonly PowerTap[]): boolean =>
  known.length === taps.length &&
  known.every(
    (one, at) =>
      one.plus === taps[at]?.plus && one.minus === taps[at].minus && one.leadOhm === taps[at].leadOhm,
  );

/** Factors the network once and answers every tap from that one factorisation. */
function answersOf(
  network: ResistiveNetwork,
  taps: readonly PowerTap[],
): Answers | { readonly problem: NetworkProblem } {
  const before = worked.get(network);
  if (before !== undefined && sameTaps(before.taps, taps)) return before;
  return onLentArena(wordsFor(network), (arena) => {
    const n = taps.length;
    const prepared = prepare(network, arena);
    if (!prepared.ok) return { problem: prepared.problem };
    const openVoltages = new Float64Array(network.nodeCount);
    prepared.open(openVoltages);
    const openV = Float64Array.from(taps, (tap) => across(openVoltages, tap));
    const transferOhm = new Float64Array(n * n);
    const drops = taps.map((tap, j) => {
      const drop = new Float64Array(network.nodeCount);
      prepared.respond(tap.plus, tap.minus, drop);
      for (let i = 0; i < n; i += 1)
        transferOhm[i * n + j] = across(drop, taps[i]) + (i === j ? tap.leadOhm : 0);
      return drop;
    });
    const answers = {
      taps: taps.map(({ plus, minus, leadOhm }) => ({ plus, minus, leadOhm })),
      openVoltages,
      drops,
      openV,
      transferOhm,
    };
    worked.set(network, answers);
    return answers;
  });
}

/**
 * Solves a resistive network with taps of constant power. The network is solved once with nothing drawn and once with 1 A drawn at
 * each tap; what the taps see of it is then a small full matrix, and the iteration runs on that alone. The voltages are those
 * solutions laid over each other. Many loads on one network share its one factorisation.
 */
export function solveConstantPower(network: ResistiveNetwork, taps: readonly PowerTap[]): PowerAnswer {
  const answers = answersOf(network, taps);
  if ('problem' in answers) return { kind: 'no-answer', problem: answers.problem };
  const n = taps.length;
  return onLentArena(n * n + 2 * n, (arena) => solveOn(network, taps, answers, arena));
}

function solveOn(
  network: ResistiveNetwork,
  taps: readonly PowerTap[],
  { openVoltages, drops, openV, transferOhm }: Answers,
  arena: Arena,
): PowerAnswer {
  const n = taps.length;
  const seen = { openV, transferOhm, matrix: arena.floats(n * n), rest: arena.floats(n) };
  const powerW = taps.map((tap) => tap.powerW);
  const current = arena.floats(n);
  const iterations =
    (n < MANY_TAPS ? undefined : relax(seen, powerW, current)) ?? settle(seen, powerW, 1, current);
  if (iterations === undefined)
    return {
      kind: 'too-much',
      deliverableW: deliverable(seen, powerW, current),
      iterations: MOST_STEPS,
    };
  const voltages = openVoltages.slice();
  drops.forEach((drop, j) => {
    const amperes = current[j] ?? 0;
    if (amperes === 0) return;
    for (let node = 0; node < drop.length; node += 1)
      voltages[node] = (voltages[node] ?? 0) - amperes * (drop[node] ?? 0);
  });
  return {
    kind: 'solved',
    sourcesA: network.sources.map((source) => sourceA(source, voltages)),
    taps: taps.map((tap, i) => ({
      currentA: current[i] ?? 0,
      voltageV: across(voltages, tap) - (current[i] ?? 0) * tap.leadOhm,
    })),
    nodesV: voltages,
    iterations,
  };
}
