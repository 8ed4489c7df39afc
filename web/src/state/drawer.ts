import type { Finding } from '@bastion/core';
import { create } from 'zustand';

interface DrawerStore {
  finding: Finding | undefined;
  /** How often a working was asked for: each time is a step in the history of the window. */
  asked: number;
  open: (finding: Finding) => void;
}

/** Which finding's working was asked for last. Whether it is shown is a matter of the address: Back closes it. */
export const useDrawer = create<DrawerStore>((set) => ({
  finding: undefined,
  asked: 0,
  open: (finding) => set(({ asked }) => ({ finding, asked: asked + 1 })),
}));
