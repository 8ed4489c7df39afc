import { create } from 'zustand';
import type { Played } from './playOutage.ts';

/** An outage that was played and is held beside the next ones: of this design before a mend, or of another variant. */
export interface KeptOutage {
  readonly jobId: number;
  /** Whose it is, in words: job and set. */
  readonly of: string;
  readonly revision: number;
  readonly minutes: number;
  readonly played: Played;
  readonly words: string;
}

interface Store {
  readonly kept: KeptOutage | undefined;
  readonly keep: (kept: KeptOutage | undefined) => void;
}

/** One place for all jobs, so that a variant can be laid over another; it lasts as long as the window. */
export const useKeptOutage = create<Store>((set) => ({
  kept: undefined,
  keep: (kept) => set({ kept }),
}));
