import { hypot } from '../../values/elementary.ts';
import type { Table } from './table.ts';

interface State {
  readonly lines: Uint8Array;
  readonly re: Float64Array;
  readonly im: Float64Array;
  readonly worst: number;
  readonly spread: number;
}

/** How many assignments are carried on from one number of moves to the next. */
const WIDTH = 240;
/** Levels without a better result before it is given up. */
const PATIENCE = 6;

function stateOf(table: Table, lines: Uint8Array, re: Float64Array, im: Float64Array): State {
  let worst = 0;
  let spread = 0;
  for (let line = 0; line < table.lineCount; line += 1) {
    const va = (table.weights[line] ?? 1) * hypot(re[line] ?? 0, im[line] ?? 0);
    if (va > worst) worst = va;
    spread += va * va;
  }
  return { lines, re, im, worst, spread };
}

function moved(table: Table, state: State, load: number, to: number): State {
  const lines = Uint8Array.from(state.lines);
  const re = Float64Array.from(state.re);
  const im = Float64Array.from(state.im);
  const from = lines[load] ?? 0;
  const loadRe = table.re[load] ?? 0;
  const loadIm = table.im[load] ?? 0;
  re[from] = (re[from] ?? 0) - loadRe;
  im[from] = (im[from] ?? 0) - loadIm;
  re[to] = (re[to] ?? 0) + loadRe;
  im[to] = (im[to] ?? 0) + loadIm;
  lines[load] = to;
  return stateOf(table, lines, re, im);
}

/** The weighted worst line and spread after one move, without making the state. */
function outlook(table: Table, state: State, load: number, to: number): { worst: number; spread: number } {
  const from = state.lines[load] ?? 0;
  let worst = 0;
  let spread = 0;
  for (let line = 0; line < table.lineCount; line += 1) {
    const sign = line === from ? -1 : line === to ? 1 : 0;
    const re = (state.re[line] ?? 0) + sign * (table.re[load] ?? 0);
    const im = (state.im[line] ?? 0) + sign * (table.im[load] ?? 0);
    const va = (table.weights[line] ?? 1) * hypot(re, im);
    if (va > worst) worst = va;
    spread += va * va;
  }
  return { worst, spread };
}

function nextLevel(table: Table, states: readonly State[]): State[] {
  const options: { state: State; load: number; to: number; worst: number; spread: number }[] = [];
  for (const state of states) {
    for (let load = 0; load < table.count; load += 1) {
      if (state.lines[load] !== table.home[load]) continue;
      for (let to = 0; to < table.lineCount; to += 1) {
        if (to !== state.lines[load]) options.push({ state, load, to, ...outlook(table, state, load, to) });
      }
    }
  }
  options.sort((a, b) => a.worst - b.worst || a.spread - b.spread);
  const seen = new Set<string>();
  const next: State[] = [];
  for (const { state, load, to } of options) {
    if (next.length >= WIDTH) break;
    const made = moved(table, state, load, to);
    const key = made.lines.join('');
    if (seen.has(key)) continue;
    seen.add(key);
    next.push(made);
  }
  return next;
}

/**
 * A quick search: for each number of moves the best few hundred assignments are carried on. Returns a good assignment for
 * each number of moves, not a proven one.
 */
export function beamSearch(table: Table, boundVa: number): { lines: Uint8Array; worst: number }[] {
  let states = [stateOf(table, table.home, table.startRe, table.startIm)];
  const found: { lines: Uint8Array; worst: number }[] = [];
  let best = Infinity;
  let stale = 0;
  for (let moves = 0; moves <= table.count && states.length > 0; moves += 1) {
    const top = states.reduce((least, state) => (state.worst < least.worst ? state : least));
    found.push({ lines: top.lines, worst: top.worst });
    stale = top.worst < best - 1e-9 ? 0 : stale + 1;
    best = Math.min(best, top.worst);
    if (best <= boundVa + 1e-9 || stale > PATIENCE) break;
    states = nextLevel(table, states);
  }
  return found;
}
