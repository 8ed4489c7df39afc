import { type KeptRehearsal, type Plant, plantKey } from '@bastion/core';
import { newId, useJob, useOpenJob } from '../../state/job.ts';

type OutageKept = Extract<KeptRehearsal, { played: 'outage' }>;
type NightsKept = Extract<KeptRehearsal, { played: 'nights' }>;
type Common = 'id' | 'stackId' | 'revision' | 'plantKey';

/** Keeps what was played in the job; undefined for whoever may not change it. */
export function useKeep(
  plant: Plant,
): ((played: Omit<OutageKept, Common> | Omit<NightsKept, Common>) => void) | undefined {
  const { canEdit, revision } = useOpenJob();
  const change = useJob((store) => store.change);
  if (!canEdit) return undefined;
  return (played) =>
    void change('Keep a rehearsal', (draft) => {
      draft.rehearsals ??= [];
      draft.rehearsals.push({
        id: newId('h'),
        stackId: plant.stackId,
        revision,
        plantKey: plantKey(plant),
        ...played,
      });
    });
}
