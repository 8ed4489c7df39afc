import type { LoggedSearch } from '@bastion/core';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { useMayChangeNote } from '../../../state/ownNote.ts';
import { put } from '../../../state/put.ts';

export interface Log {
  /** The newest first. */
  readonly entries: readonly LoggedSearch[];
  readonly mayChange: (entry: LoggedSearch) => boolean;
  /** Keeps how far a search has come; what it was found to be stays. */
  readonly keep: (entry: Pick<LoggedSearch, 'id' | 'symptom' | 'answers' | 'left'>) => void;
  readonly find: (id: string, found: string) => void;
}

/** The searches for faults that the job has on record; whoever may take notes adds to them. */
export function useLog(): Log {
  const { design, canEdit, canNote } = useOpenJob();
  const change = useJob((store) => store.change);
  const mayChange = useMayChangeNote();
  const entries = design.faultSearches ?? [];
  const search = (id: string): LoggedSearch | undefined => entries.find((one) => one.id === id);
  return {
    entries: entries.toReversed(),
    mayChange,
    keep: (entry) => {
      const before = search(entry.id);
      if (!(canEdit || canNote) || (before !== undefined && !mayChange(before))) return;
      void change('Search for a fault', (draft) => {
        draft.faultSearches ??= [];
        const one = draft.faultSearches.find(({ id }) => id === entry.id);
        if (one === undefined) draft.faultSearches.push(entry);
        else Object.assign(one, entry);
      });
    },
    find: (id, found) =>
      void change('What a fault was', (draft) => {
        const one = draft.faultSearches?.find((entry) => entry.id === id);
        if (one !== undefined) put(one, 'found', found === '' ? undefined : found);
      }),
  };
}
