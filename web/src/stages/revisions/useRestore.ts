import { useCallback } from 'react';
import { api, failureSentence } from '../../api/client.ts';
import { useJob, useOpenJob } from '../../state/job.ts';

/** Makes an earlier revision the latest one, and opens it; what went wrong is told in the status line. */
export function useRestore(): (revision: number) => Promise<void> {
  const { id, revision: replaces } = useOpenJob();
  const open = useJob((store) => store.open);
  const tell = useJob((store) => store.tell);
  return useCallback(
    async (revision) => {
      try {
        await api.restore(id, revision, replaces);
        await open(id);
        tell(`Revision ${revision} is the latest design again. What was there before is kept as a revision.`);
      } catch (error) {
        tell(failureSentence(error));
      }
    },
    [id, replaces, open, tell],
  );
}
