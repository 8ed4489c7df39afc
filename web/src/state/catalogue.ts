import { type EquipmentType, SAMPLE_TYPES, type wire } from '@bastion/core';
import { create } from 'zustand';
import { api, failureSentence } from '../api/client.ts';

interface CatalogueStore {
  state: 'none' | 'loading' | 'here' | 'failed';
  message: string;
  own: readonly wire.OwnType[];
  /** A sentence for each type that is stored and cannot be read. */
  unreadable: readonly string[];
  /** In how many jobs of the firm each type is used. */
  usage: Readonly<Record<string, number>>;
  /** Samples first, then the firm's own; the latest version of each. */
  types: readonly EquipmentType[];
  load: () => Promise<void>;
  /** Keeps types and tells what went wrong, or nothing. */
  keep: (types: readonly EquipmentType[]) => Promise<string | undefined>;
  remove: (id: string) => Promise<string | undefined>;
}

const here = ({ own, usage, unreadable }: wire.Catalogue) => ({
  state: 'here' as const,
  message: '',
  own,
  usage,
  unreadable,
  types: [...SAMPLE_TYPES, ...own.map(({ type }) => type)],
});

/** The equipment that jobs can be built of: samples that everybody has, and what the firm keeps. */
export const useCatalogue = create<CatalogueStore>((set, get) => ({
  state: 'none',
  message: '',
  own: [],
  unreadable: [],
  usage: {},
  types: SAMPLE_TYPES,
  load: async () => {
    if (get().state === 'none') set({ state: 'loading' });
    try {
      set(here(await api.catalogue()));
    } catch (error) {
      set({ state: 'failed', message: failureSentence(error) });
    }
  },
  keep: async (types) => {
    try {
      set(here(await api.keepTypes(types)));
      return undefined;
    } catch (error) {
      return failureSentence(error);
    }
  },
  remove: async (id) => {
    try {
      await api.removeType(id);
      await get().load();
      return undefined;
    } catch (error) {
      return failureSentence(error);
    }
  },
}));

/** The catalogue as it is now, for what runs outside of a component. */
export const catalogueNow = (): readonly EquipmentType[] => useCatalogue.getState().types;
