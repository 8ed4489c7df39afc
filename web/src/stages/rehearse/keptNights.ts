import type { NightsSummary, OutagePattern } from '@bastion/core';
import { create } from 'zustand';
import type { PlayedNights } from '../../workers/nights.worker.ts';

/** Many nights as they were played: with the figures they belong to, and how they were asked for. */
export interface KeptNights {
  readonly summary: NightsSummary;
  readonly played: PlayedNights;
  /** Of the figures they were played from. */
  readonly plantKey: string;
  readonly how: {
    readonly pattern: OutagePattern;
    readonly seed: number;
    readonly nights: number;
    readonly fromFull: boolean;
    readonly typedHours: readonly number[];
  };
}

interface Store {
  readonly kept: ReadonlyMap<string, KeptNights>;
  readonly keep: (key: string, nights: KeptNights) => void;
}

/** What was played stays while its window is open, whatever page is looked at meanwhile. */
export const useKeptNights = create<Store>((set) => ({
  kept: new Map(),
  keep: (key, nights) => set(({ kept }) => ({ kept: new Map(kept).set(key, nights) })),
}));
