import type { peopleWire } from '@bastion/core';
import { useEffect, useState } from 'react';
import { api, failureSentence } from '../../api/client.ts';

/** Who did what, the latest first, and whether the trail is as it was written. */
export function Trail() {
  const [page, setPage] = useState<peopleWire.AuditPage>();
  const [failure, setFailure] = useState('');
  useEffect(() => {
    api.trail().then(setPage, (error: unknown) => setFailure(failureSentence(error)));
  }, []);
  return (
    <section className="sheet p-4" aria-label="Audit trail">
      <h2>What was done</h2>
      <p className={page?.intact === false ? 'font-semibold text-over' : 'text-quiet'}>
        {failure === '' ? (page?.told ?? 'One moment…') : failure}
      </p>
      <div className="relative mt-2 max-h-96 overflow-auto" tabIndex={0} role="region" aria-label="Entries">
        <table className="w-full min-w-[560px] text-[13px]">
          <thead>
            <tr className="text-left text-quiet">
              <th className="pr-3 font-medium">When</th>
              <th className="pr-3 font-medium">Who</th>
              <th className="pr-3 font-medium">Did</th>
              <th className="font-medium">What</th>
            </tr>
          </thead>
          <tbody>
            {page?.entries.map((entry) => (
              <tr key={entry.id} className="border-t border-rule align-top">
                <td className="py-0.5 pr-3 whitespace-nowrap">{new Date(entry.at).toLocaleString()}</td>
                <td className="pr-3">{entry.actor}</td>
                <td className="pr-3 whitespace-nowrap">{entry.action}</td>
                <td className="break-words">{entry.subject}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
