import { bondingMends } from '@bastion/core';
import { useMemo } from 'react';
import { catalogueNow } from '../../state/catalogue.ts';
import { useJob, useOpenJob } from '../../state/job.ts';

const MOST = 5;
const words = (count: number): string => (count === 1 ? '1 fault' : `${count} faults`);

/** Ways to mend bonds, interlocks and back-feed, each worked out before it is offered. */
export function BondMends() {
  const { design, canEdit } = useOpenJob();
  const apply = useJob((store) => store.apply);
  const mends = useMemo(() => bondingMends(design, catalogueNow()), [design]);
  if (mends.length === 0) return null;
  return (
    <section className="sheet p-3" aria-label="Ways to mend">
      <h3 className="font-semibold">Ways to mend</h3>
      <ul>
        {mends.slice(0, MOST).map((mend) => (
          <li key={mend.id} className="flex items-start gap-3 border-t border-rule py-1.5">
            <span className="min-w-0 flex-1">
              {mend.label}
              <span className="block text-[12.5px] text-quiet">
                {words(mend.before.over)} of bonding now,{' '}
                {mend.after.over === 0 ? 'none' : words(mend.after.over)} after it
              </span>
            </span>
            {canEdit && (
              <button type="button" className="button" onClick={() => apply(mend.label, mend.edits)}>
                Take it
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
