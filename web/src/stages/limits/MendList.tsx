import type { Cause, Design } from '@bastion/core';
import { useEffect, useState } from 'react';
import { catalogueNow } from '../../state/catalogue.ts';
import { useJob, useOpenJob } from '../../state/job.ts';
import { StateMark } from '../../ui/StateMark.tsx';
import { CalledOff, runMends } from '../../workers/advice.ts';
import type { FoundMends } from '../../workers/advice.worker.ts';

/** What was found, and for which design: of another one it says nothing. */
interface Found {
  readonly of: Design;
  readonly result: FoundMends | 'failed';
}

/** What would clear a cause, worked out beside the page, each with its effect before it is taken. */
export function MendList({ cause }: { readonly cause: Cause }) {
  const { design, canEdit } = useOpenJob();
  const apply = useJob((store) => store.apply);
  const [answer, setAnswer] = useState<Found>();
  useEffect(() => {
    const off = new AbortController();
    runMends(cause.id, design, catalogueNow(), off.signal).then(
      (result) => setAnswer({ of: design, result }),
      (error: unknown) => {
        if (!(error instanceof CalledOff)) setAnswer({ of: design, result: 'failed' });
      },
    );
    return () => off.abort();
  }, [cause.id, design]);
  const found = answer?.of === design ? answer.result : undefined;
  if (found === undefined) return <p role="status">Working out what would clear it…</p>;
  if (found === 'failed')
    return <p role="alert">What would clear it could not be worked out. Nothing was changed.</p>;
  if (found.mends.length === 0)
    return (
      <p>
        {found.decides === 'customer'
          ? 'No change of the design clears this: only the building, the site or the customer can decide.'
          : 'No single change of the design clears this: what the finding asks for is done on site, or by several changes together.'}
      </p>
    );
  return (
    <div>
      <h3 className="font-semibold">What would clear it</h3>
      <ul>
        {found.mends.map((mend) => (
          <li
            key={mend.id}
            className="grid items-center gap-x-3 gap-y-1 border-t border-rule py-1.5 first:border-t-0 md:grid-cols-[minmax(0,1fr)_auto]"
          >
            <div>
              <span className="font-semibold">{mend.title}</span>
              <br />
              <span className="text-[13px]">
                <StateMark state={mend.after.state} /> {mend.after.message}{' '}
                <span className="text-quiet">
                  Then {mend.after.over} over, {mend.after.unknown} open, {mend.after.tight} tight in all.
                </span>
              </span>
            </div>
            {canEdit && (
              <button
                type="button"
                className="button no-print justify-self-start"
                onClick={() => apply(mend.title, mend.edits)}
              >
                Take it
              </button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
