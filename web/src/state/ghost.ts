import type { Design } from '@bastion/core';
import { create } from 'zustand';

interface GhostStore {
  /** What the design would be with the proposal that is being looked at; nothing of it is accepted yet. */
  ghost: Design | undefined;
  show: (ghost: Design | undefined) => void;
}

export const useGhost = create<GhostStore>((set) => ({
  ghost: undefined,
  show: (ghost) => set({ ghost }),
}));
