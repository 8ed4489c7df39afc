import { isOthers } from '@bastion/core';
import { useOpenJob } from './job.ts';
import { useSession } from './session.ts';

/** Tells of each note whether this person may change it: designers all, field electricians their own. */
export function useMayChangeNote(): (note: { readonly by?: string | undefined } | undefined) => boolean {
  const { canEdit, canNote } = useOpenJob();
  const name = useSession((store) => (store.session.kind === 'in' ? store.session.user.name : ''));
  return (note) => canEdit || (canNote && !isOthers(note ?? {}, name));
}
