import { create } from 'zustand';

interface LightStore {
  /** The circuit under the pointer or the keyboard: it lights up wherever it is shown. */
  lit: string | undefined;
  light: (circuitId: string | undefined) => void;
  /** The same for a part of the installation: row, drawing and finding. */
  litPart: string | undefined;
  lightPart: (partId: string | undefined) => void;
}

export const useLight = create<LightStore>((set) => ({
  lit: undefined,
  light: (lit) => set({ lit }),
  litPart: undefined,
  lightPart: (litPart) => set({ litPart }),
}));
