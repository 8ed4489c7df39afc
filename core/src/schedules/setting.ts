import type { Cell } from './table.ts';

/** One setting of one device: what the design wants it to be, and what somebody has read there. */
export interface Setting {
  readonly id: string;
  readonly setting: string;
  readonly wanted: Cell;
  readonly why: string;
  readonly typed?: Cell;
}

export const percentOf = (share: number | undefined): Cell =>
  share === undefined ? null : `${Math.round(share * 1000) / 10} %`;
