import { askedWords, foundWords, type KeptRehearsal, type Plant, plantKey } from '@bastion/core';
import { FileText, RotateCcw, Trash2 } from 'lucide-react';
import { useMemo } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';

const TITLES = { outage: 'One outage', nights: 'Many nights' } as const;

/** What is kept in the job of a set: how it was asked for, what came of it, and whether the design still is what it was played from. */
export function KeptList({
  stackId,
  plant,
  onAgain,
}: {
  readonly stackId: string;
  readonly plant: Plant | undefined;
  readonly onAgain: (kept: KeptRehearsal) => void;
}) {
  const { id: jobId, design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const now = useMemo(() => (plant === undefined ? undefined : plantKey(plant)), [plant]);
  const own = (design.rehearsals ?? []).filter((one) => one.stackId === stackId).toReversed();
  return (
    <section aria-label="Kept in the job" className="border-t border-rule pt-2">
      <div className="flex flex-wrap items-center gap-3">
        <h3 className="flex-1 font-semibold">Kept in the job</h3>
        <a
          className="button no-print"
          href={`/api/jobs/${jobId}/rehearsals.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          <FileText size={15} aria-hidden="true" /> PDF
        </a>
      </div>
      {own.length === 0 && (
        <p className="text-[13px] text-quiet">
          Nothing yet. What is played can be kept here: it stays with the job, for everybody who opens it, and
          goes onto paper.
        </p>
      )}
      <ul>
        {own.map((kept) => (
          <li key={kept.id} className="border-t border-rule py-1.5 text-[13px]">
            <p>
              <strong>{TITLES[kept.played]}</strong>: {askedWords(kept)}.
            </p>
            {foundWords(kept).map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
            <p className={kept.plantKey === now ? 'text-quiet' : 'text-tight'}>
              Played at revision {kept.revision}:{' '}
              {kept.plantKey === now
                ? 'the figures it was played from stand.'
                : 'the design has moved on since. Play it again to see what that changes.'}
            </p>
            <p className="no-print flex flex-wrap gap-1.5">
              <button type="button" className="button" onClick={() => onAgain(kept)}>
                <RotateCcw size={15} aria-hidden="true" /> Play it again
              </button>
              {canEdit && (
                <button
                  type="button"
                  className="button button-quiet"
                  onClick={() =>
                    void change('Let a rehearsal go', (draft) => {
                      draft.rehearsals = (draft.rehearsals ?? []).filter(({ id }) => id !== kept.id);
                    })
                  }
                >
                  <Trash2 size={15} aria-hidden="true" /> Let it go
                </button>
              )}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
