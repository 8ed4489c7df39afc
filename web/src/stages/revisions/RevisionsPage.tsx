import { counted, type wire } from '@bastion/core';
import { useCallback, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, failureSentence } from '../../api/client.ts';
import { useJob, useOpenJob } from '../../state/job.ts';
import { useRestore } from './useRestore.ts';

const words = ({ revision, changes, pages }: wire.RevisionRow): string =>
  revision === 1 && changes === 0
    ? 'the job was made'
    : `${counted(changes, 'place')}${pages.length > 0 ? ` in ${pages.join(', ')}` : ''}`;

/** Every saved state of the job, the latest first: to be looked at as it was, or brought back. */
export function RevisionsPage() {
  const { id, revision: latest, canEdit, at } = useOpenJob();
  const open = useJob((store) => store.open);
  const navigate = useNavigate();
  const restore = useRestore();
  const [list, setList] = useState<wire.RevisionList>({ rows: [], before: null });
  const [failure, setFailure] = useState('');
  const load = useCallback(
    (before: number | null) => {
      api.revisions(id, before).then(
        (more) =>
          setList((now) => ({
            rows: before === null ? more.rows : [...now.rows, ...more.rows],
            before: more.before,
          })),
        (error: unknown) => setFailure(failureSentence(error)),
      );
    },
    [id],
  );
  useEffect(() => load(null), [load, latest]);
  const look = async (revision: number): Promise<void> => {
    await open(id, revision === latest ? undefined : revision);
    await navigate(`/jobs/${id}/limits`);
  };
  return (
    <div className="max-w-4xl">
      <h2>Revisions</h2>
      <p className="mt-1">
        Every change is kept. Looking at a revision changes nothing; bringing one back makes it the latest,
        and what is there now stays in the list. What was accepted stays accepted.
      </p>
      <p role="alert" className="font-semibold text-over empty:hidden">
        {failure}
      </p>
      <div className="sheet mt-3 overflow-x-auto p-3" tabIndex={-1}>
        <table className="w-full">
          <thead>
            <tr className="text-left">
              <th scope="col">Revision</th>
              <th scope="col">When</th>
              <th scope="col">Who</th>
              <th scope="col">What was changed</th>
              <th scope="col">
                <span className="sr-only">What can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {list.rows.map((row) => (
              <tr key={row.revision} className="border-t border-rule">
                <td className="py-1 pr-3 tabular-nums">
                  {row.revision}
                  {row.revision === (at ?? latest) && <strong> (open)</strong>}
                </td>
                <td className="pr-3">{row.at === '' ? 'not known' : new Date(row.at).toLocaleString()}</td>
                <td className="pr-3">{row.by === '' ? 'not known' : row.by}</td>
                <td className="pr-3">{words(row)}</td>
                <td className="text-right whitespace-nowrap">
                  {row.revision !== (at ?? latest) && (
                    <button
                      type="button"
                      className="button button-quiet"
                      aria-label={`Look at revision ${row.revision}`}
                      onClick={() => void look(row.revision)}
                    >
                      Look at it
                    </button>
                  )}
                  {canEdit && row.revision !== latest && (
                    <button
                      type="button"
                      className="button button-quiet"
                      aria-label={`Bring revision ${row.revision} back`}
                      onClick={() => void restore(row.revision)}
                    >
                      Bring it back
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {list.before !== null && (
          <button type="button" className="button mt-2" onClick={() => load(list.before)}>
            Earlier ones
          </button>
        )}
      </div>
    </div>
  );
}
