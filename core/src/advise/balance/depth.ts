import { hypot } from '../../values/elementary.ts';
import type { Table } from './table.ts';

/** Room for ties, so that the worst hour and the surge can decide between assignments that load the lines alike. */
const TIE = 1e-9;

/** Nodes after which a proof is given up. */
export interface Budget {
  nodes: number;
}

/**
 * Goes through all sets of at most `moves` moves, leaving out what cannot come below the best known. A line that is above
 * the best must still be able to lose enough: with r moves left, at most the r largest loads that may still leave it.
 *
 * @param best largest line that is worth reporting; lowered as better ones are found
 * @param report told each assignment that is no worse than the best so far
 * @returns whether all was seen within the budget
 */
export function searchMoves(
  table: Table,
  moves: number,
  best: number,
  report: (lines: Uint8Array, worst: number) => void,
  budget: Budget,
): boolean {
  const { lineCount, count, re, im, va, home, weights } = table;
  const sumRe = Float64Array.from(table.startRe);
  const sumIm = Float64Array.from(table.startIm);
  const lines = Uint8Array.from(home);
  // Largest loads of each line from each place on, as running sums: leaving[line][place] counts and sums from large to small.
  const onLine = Array.from({ length: lineCount }, (_, line) =>
    Array.from({ length: count }, (_, index) => index).filter((index) => home[index] === line),
  );
  const firstFrom = onLine.map((list) => {
    const first = new Int32Array(count + 1);
    let place = list.length;
    for (let index = count; index >= 0; index -= 1) {
      while (place > 0 && (list[place - 1] ?? 0) >= index) place -= 1;
      first[index] = place;
    }
    return first;
  });
  const running = onLine.map((list) => {
    const sums = new Float64Array(list.length + 1);
    list.forEach((index, place) => {
      sums[place + 1] = (sums[place] ?? 0) + (va[index] ?? 0);
    });
    return sums;
  });
  let least = best;
  let seen = true;

  const canComeBelow = (from: number, left: number): boolean => {
    for (let line = 0; line < lineCount; line += 1) {
      const now = hypot(sumRe[line] ?? 0, sumIm[line] ?? 0);
      const sums = running[line];
      const first = firstFrom[line]?.[from] ?? 0;
      const length = (sums?.length ?? 1) - 1;
      const lost = (sums?.[Math.min(first + left, length)] ?? 0) - (sums?.[first] ?? 0);
      if ((weights[line] ?? 1) * (now - lost) > least * (1 + TIE)) return false;
    }
    return true;
  };
  const worstNow = (): number => {
    let worst = 0;
    for (let line = 0; line < lineCount; line += 1) {
      const now = (weights[line] ?? 1) * hypot(sumRe[line] ?? 0, sumIm[line] ?? 0);
      if (now > worst) worst = now;
    }
    return worst;
  };
  const isTwin = (a: number, b: number): boolean => table.kind[a] === table.kind[b];

  const descend = (from: number, left: number): void => {
    for (let load = from; load < count; load += 1) {
      if (!canComeBelow(load, left)) return;
      if (load > from && isTwin(load, load - 1)) continue;
      budget.nodes -= 1;
      if (budget.nodes < 0) {
        seen = false;
        return;
      }
      const at = home[load] ?? 0;
      const loadRe = re[load] ?? 0;
      const loadIm = im[load] ?? 0;
      const atRe = sumRe[at] ?? 0;
      const atIm = sumIm[at] ?? 0;
      sumRe[at] = atRe - loadRe;
      sumIm[at] = atIm - loadIm;
      for (let to = 0; to < lineCount; to += 1) {
        if (to === at) continue;
        const toRe = sumRe[to] ?? 0;
        const toIm = sumIm[to] ?? 0;
        sumRe[to] = toRe + loadRe;
        sumIm[to] = toIm + loadIm;
        lines[load] = to;
        const worst = worstNow();
        if (worst <= least * (1 + TIE)) {
          report(lines, worst);
          if (worst < least) least = worst;
        }
        if (left > 1) descend(load + 1, left - 1);
        sumRe[to] = toRe;
        sumIm[to] = toIm;
      }
      lines[load] = at;
      sumRe[at] = atRe;
      sumIm[at] = atIm;
      if (!seen) return;
    }
  };
  descend(0, moves);
  return seen;
}
