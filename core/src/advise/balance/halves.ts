import { hypot } from '../../values/elementary.ts';
import { wholePower } from '../../values/power.ts';
import type { Table } from './table.ts';

/** Every way to place a run of loads: its part along the whole load on each line but the last, and its code. */
interface Half {
  readonly from: number;
  readonly size: number;
  readonly states: number;
  /** Parts along, state by state, line by line. */
  readonly along: Float64Array;
  /** How many of the loads do not stand where they stand now. */
  readonly moves: Uint8Array;
}

function allPlacements(table: Table, from: number, size: number): Half {
  const { lineCount } = table;
  const states = wholePower(lineCount, size);
  const along = new Float64Array(states * lineCount);
  const moves = new Uint8Array(states);
  for (let load = 0; load < size; load += 1) {
    const part = table.along[from + load] ?? 0;
    const period = wholePower(lineCount, load);
    for (let state = 0; state < states; state += 1) {
      const line = Math.floor(state / period) % lineCount;
      const at = state * lineCount + line;
      along[at] = (along[at] ?? 0) + part;
      if (line !== table.home[from + load]) moves[state] = (moves[state] ?? 0) + 1;
    }
  }
  return { from, size, states, along, moves };
}

/** More pairs than this are not looked at; the answer then is not called proven. */
const MOST_PAIRS = 250_000_000;
const CELLS_PER_SIDE = 512;

/** States in cells by their parts on the first and (with three lines) the second line. */
class Cells {
  private readonly start: Int32Array;
  private readonly sorted: Int32Array;
  private readonly low: [number, number];
  readonly width: [number, number];
  readonly sides: [number, number];

  constructor(half: Half, lineCount: number) {
    const { along, states } = half;
    const range = (line: number): [number, number] => {
      let low = Infinity;
      let high = -Infinity;
      for (let state = 0; state < states; state += 1) {
        const value = along[state * lineCount + line] ?? 0;
        if (value < low) low = value;
        if (value > high) high = value;
      }
      return [low, high];
    };
    const [lowA, highA] = range(0);
    const [lowB, highB] = lineCount > 2 ? range(1) : [0, 0];
    this.low = [lowA, lowB];
    this.sides = [CELLS_PER_SIDE, lineCount > 2 ? CELLS_PER_SIDE : 1];
    this.width = [
      Math.max((highA - lowA) / CELLS_PER_SIDE, 1e-9),
      Math.max((highB - lowB) / CELLS_PER_SIDE, 1e-9),
    ];
    const cellOf = new Int32Array(states);
    this.start = new Int32Array(this.sides[0] * this.sides[1] + 1);
    for (let state = 0; state < states; state += 1) {
      const a = this.place(0, along[state * lineCount] ?? 0);
      const b = lineCount > 2 ? this.place(1, along[state * lineCount + 1] ?? 0) : 0;
      const cell = a * this.sides[1] + b;
      cellOf[state] = cell;
      this.start[cell + 1] = (this.start[cell + 1] ?? 0) + 1;
    }
    for (let cell = 0; cell < this.start.length - 1; cell += 1)
      this.start[cell + 1] = (this.start[cell + 1] ?? 0) + (this.start[cell] ?? 0);
    const next = Int32Array.from(this.start);
    this.sorted = new Int32Array(states);
    for (let state = 0; state < states; state += 1) {
      const cell = cellOf[state] ?? 0;
      this.sorted[next[cell] ?? 0] = state;
      next[cell] = (next[cell] ?? 0) + 1;
    }
  }

  place(axis: 0 | 1, value: number): number {
    const cell = Math.floor((value - this.low[axis]) / this.width[axis]);
    return Math.min(Math.max(cell, 0), this.sides[axis] - 1);
  }

  /** Where the states of a run of cells of one row begin and end. */
  startOf(row: number, fromB: number): number {
    return this.start[row * this.sides[1] + fromB] ?? 0;
  }

  endOf(row: number, toB: number): number {
    return this.start[row * this.sides[1] + toB + 1] ?? 0;
  }

  stateAt(place: number): number {
    return this.sorted[place] ?? 0;
  }
}

/**
 * The states of a half in the order of their cells, line by line: the loop over pairs then reads memory from front to back,
 * which is what it spends its time on.
 */
function inOrderOfCells(half: Half, cells: Cells, lineCount: number) {
  const onA = new Float64Array(half.states);
  const onB = new Float64Array(half.states);
  const onC = new Float64Array(lineCount > 2 ? half.states : 0);
  const moves = new Uint8Array(half.states);
  for (let place = 0; place < half.states; place += 1) {
    const state = cells.stateAt(place);
    onA[place] = half.along[state * lineCount] ?? 0;
    onB[place] = half.along[state * lineCount + 1] ?? 0;
    if (lineCount > 2) onC[place] = half.along[state * lineCount + 2] ?? 0;
    moves[place] = half.moves[state] ?? 0;
  }
  return { onA, onB, onC, moves };
}

/** Reads the line of each load of a half out of the code of a state. */
function decode(half: Half, state: number, lineCount: number, into: Uint8Array): void {
  let rest = state;
  for (let load = 0; load < half.size; load += 1) {
    into[half.from + load] = rest % lineCount;
    rest = Math.floor(rest / lineCount);
  }
}

/** Weighted worst line of a whole assignment. */
function worstOf(table: Table, lines: Uint8Array, re: Float64Array, im: Float64Array): number {
  re.set(table.baseRe);
  im.set(table.baseIm);
  for (let load = 0; load < table.count; load += 1) {
    const line = lines[load] ?? 0;
    re[line] = (re[line] ?? 0) + (table.re[load] ?? 0);
    im[line] = (im[line] ?? 0) + (table.im[load] ?? 0);
  }
  let worst = 0;
  for (let line = 0; line < table.lineCount; line += 1)
    worst = Math.max(worst, (table.weights[line] ?? 1) * hypot(re[line] ?? 0, im[line] ?? 0));
  return worst;
}

/** What each line may hold at most and must hold at least, if no line is to go above `best`. */
function bandsOf(table: Table, best: number): { most: number[]; leastOn: number[] } {
  const whole =
    table.baseAlong.reduce((sum, one) => sum + one, 0) + table.along.reduce((sum, one) => sum + one, 0);
  const most = Array.from(table.weights, (weight) => best / weight);
  const mostSum = most.reduce((sum, one) => sum + one, 0);
  return { most, leastOn: most.map((one) => whole - (mostSum - one)) };
}

/** About how many pairs fall into the band. */
function pairsExpected(
  first: Half,
  second: Half,
  cells: Cells,
  bands: ReturnType<typeof bandsOf>,
  lineCount: number,
): number {
  const wide = (axis: 0 | 1): number =>
    Math.min(
      ((bands.most[axis] ?? 0) - (bands.leastOn[axis] ?? 0)) / cells.width[axis] + 2,
      cells.sides[axis],
    );
  const share = (wide(0) * (lineCount > 2 ? wide(1) : 1)) / (cells.sides[0] * cells.sides[1]);
  return first.states * second.states * share;
}

/**
 * Finds the assignments that come below what is known for their number of moves, by joining the placements of the first
 * half of the loads with those of the second. Along the whole load the lines add up to a fixed sum, so where no line may
 * hold more than the best of few moves, each line has to lie in a narrow band, and only halves that fall together into
 * that band are joined.
 *
 * @param best nothing above this is looked for
 * @param limits the lowest worst line known for at most so many moves; the caller lowers it as it is told of better ones
 * @returns whether all was seen; false where the band is too wide for the halves to be joined
 */
export function joinHalves(
  table: Table,
  best: number,
  limits: Float64Array,
  report: (lines: Uint8Array, worst: number) => void,
  onProgress: (share: number) => void,
): boolean {
  const { lineCount, count, weights } = table;
  const cut = Math.ceil(count / 2);
  const first = allPlacements(table, 0, cut);
  const second = allPlacements(table, cut, count - cut);
  const bands = bandsOf(table, best);
  const cells = new Cells(second, lineCount);
  if (pairsExpected(first, second, cells, bands, lineCount) > MOST_PAIRS) return false;
  const lines = new Uint8Array(count);
  const re = new Float64Array(lineCount);
  const im = new Float64Array(lineCount);
  const slack = 1e-9 * Math.max(1, best);
  const [weightA = 1, weightB = 1, weightC = 1] = weights;
  const [mostA = 0, mostB = 0] = bands.most;
  const [leastA = 0, leastB = 0] = bands.leastOn;
  const hasThree = lineCount > 2;
  const sorted = inOrderOfCells(second, cells, lineCount);
  for (let state = 0; state < first.states; state += 1) {
    if (state % 65536 === 0) onProgress(state / first.states);
    const at = state * lineCount;
    const onA = (table.baseAlong[0] ?? 0) + (first.along[at] ?? 0);
    const onB = (table.baseAlong[1] ?? 0) + (first.along[at + 1] ?? 0);
    const onC = hasThree ? (table.baseAlong[2] ?? 0) + (first.along[at + 2] ?? 0) : 0;
    const movesHere = first.moves[state] ?? 0;
    const fromB = hasThree ? cells.place(1, leastB - onB - slack) : 0;
    const toB = hasThree ? cells.place(1, mostB - onB + slack) : 0;
    const toA = cells.place(0, mostA - onA + slack);
    for (let row = cells.place(0, leastA - onA - slack); row <= toA; row += 1) {
      const to = cells.endOf(row, toB);
      for (let place = cells.startOf(row, fromB); place < to; place += 1) {
        const limit = (limits[movesHere + (sorted.moves[place] ?? 0)] ?? 0) + slack;
        if (weightA * (onA + (sorted.onA[place] ?? 0)) > limit) continue;
        if (weightB * (onB + (sorted.onB[place] ?? 0)) > limit) continue;
        if (hasThree && weightC * (onC + (sorted.onC[place] ?? 0)) > limit) continue;
        decode(first, state, lineCount, lines);
        decode(second, cells.stateAt(place), lineCount, lines);
        const worst = worstOf(table, lines, re, im);
        if (worst <= limit) report(lines, worst);
      }
    }
  }
  return true;
}
