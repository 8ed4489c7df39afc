import { Archive, Layers, X } from 'lucide-react';
import type { KeptOutage } from './keptOutage.ts';

interface KeptLineProps {
  readonly kept: KeptOutage | undefined;
  readonly jobId: number;
  readonly revision: number;
  readonly onKeep: () => void;
  readonly onDrop: () => void;
  readonly onKeepInJob?: () => void;
}

/** Keeps this run to lay the next ones over it: before and after a mend, or one variant over another. */
export function KeptLine({ kept, jobId, revision, onKeep, onDrop, onKeepInJob }: KeptLineProps) {
  const isOlder = kept !== undefined && kept.jobId === jobId && kept.revision !== revision;
  return (
    <div className="no-print flex flex-wrap items-center gap-2 text-[13px]">
      {kept !== undefined && (
        <p className="flex-1" role="status">
          <strong className="text-unknown">Kept run</strong>: {kept.of}, revision {kept.revision}
          {isOlder && ` (the design is at ${revision} now)`}. {kept.words}
        </p>
      )}
      <button type="button" className="button" onClick={onKeep}>
        <Layers size={15} aria-hidden="true" />{' '}
        {kept === undefined ? 'Keep this run to compare' : 'Keep this one instead'}
      </button>
      {onKeepInJob !== undefined && (
        <button type="button" className="button" onClick={onKeepInJob}>
          <Archive size={15} aria-hidden="true" /> Keep it in the job
        </button>
      )}
      {kept !== undefined && (
        <button type="button" className="button" onClick={onDrop}>
          <X size={15} aria-hidden="true" /> Let it go
        </button>
      )}
    </div>
  );
}
