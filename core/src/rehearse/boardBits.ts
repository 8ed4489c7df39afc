import { remember } from '../values/remember.ts';
import type { Plant } from './plant.ts';
import type { PlantBoard } from './plantBoard.ts';

/** The boards of a set as bits, for minutes that have no time for lists. */
export interface BoardBits {
  readonly everything: number;
  /** Those that need no engine. */
  readonly withoutEngine: number;
  /** Boards that are dropped by the level of the bank: their levels and bits. */
  readonly stageSoc: Float64Array;
  readonly stageBit: Int32Array;
  /** Of each board all is fed, as long as nothing fails. */
  readonly allFed: readonly number[];
}

const bitsOf = (boards: readonly PlantBoard[], is: (board: PlantBoard) => boolean): number =>
  boards.reduce((bits, board, index) => (is(board) ? bits | (1 << index) : bits), 0);

/** Made once for a set. */
export const boardBits = remember(({ boards }: Plant): BoardBits => {
  const stages = boards.flatMap(({ shedBelowSoc }, index) =>
    shedBelowSoc === undefined ? [] : [{ level: shedBelowSoc, bit: 1 << index }],
  );
  return {
    everything: bitsOf(boards, () => true),
    withoutEngine: bitsOf(boards, ({ onlyWithGenerator }) => !onlyWithGenerator),
    stageSoc: Float64Array.from(stages, ({ level }) => level),
    stageBit: Int32Array.from(stages, ({ bit }) => bit),
    allFed: boards.map(() => 1),
  };
});
