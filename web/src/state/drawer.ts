import type { Finding } from '@bastion/core';
import { create } from 'zustand';

interface DrawerStore {
  finding: Finding | undefined;
  open: (finding: Finding) => void;
  close: () => void;
}

/** Which finding's working is open at the side. */
export const useDrawer = create<DrawerStore>((set) => ({
  finding: undefined,
  open: (finding) => set({ finding }),
  close: () => set({ finding: undefined }),
}));
