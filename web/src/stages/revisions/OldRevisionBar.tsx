import { History } from 'lucide-react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { useRestore } from './useRestore.ts';

/** Says that an earlier revision is on the screen, and leads out of it. */
export function OldRevisionBar() {
  const { id, at, revision, mayRestore } = useOpenJob();
  const open = useJob((store) => store.open);
  const restore = useRestore();
  if (at === undefined) return null;
  return (
    <div
      role="status"
      className="no-print flex flex-wrap items-center gap-2 border-b border-rule bg-chosen px-3 py-1"
    >
      <History size={15} aria-hidden="true" />
      <span className="flex-1">
        <strong>Revision {at}</strong> of {revision}, as it was then. Nothing can be changed in it.
      </span>
      {mayRestore && (
        <button type="button" className="button" onClick={() => void restore(at)}>
          Bring it back
        </button>
      )}
      <button type="button" className="button" onClick={() => void open(id)}>
        To the latest
      </button>
    </div>
  );
}
