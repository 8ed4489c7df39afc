import type { Board, PartialSum } from '../loads/board.ts';

/** Average power of the lines that a set reaches, W. A set that reaches all needs no split by line. */
export function reachedAverageW(board: Board, reached: readonly number[]): PartialSum<number> {
  if (reached.length >= board.lineAverageW.knownPart.length) return board.averageW;
  return {
    knownPart: reached.reduce((sum, line) => sum + (board.lineAverageW.knownPart[line] ?? 0), 0),
    missing: board.lineAverageW.missing,
  };
}
