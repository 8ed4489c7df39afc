import { counted, takeTypes, typesForDevices, untypedCount } from '@bastion/core';
import { useMemo, useState } from 'react';
import { catalogueNow } from '../../../state/catalogue.ts';
import { newId, useJob, useOpenJob } from '../../../state/job.ts';

/** More names than this are counted, not listed. */
const MOST_NAMES = 4;

/** A type from the library for every device that has none: one step, and one undo. They are looked for when somebody asks. */
export function DevicesForm() {
  const { analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const [without, setWithout] = useState<readonly string[]>([]);
  const open = useMemo(() => untypedCount(analysis.installation), [analysis.installation]);
  if (!canEdit || open === 0) return null;
  const take = (): void => {
    const choice = typesForDevices(analysis.installation, catalogueNow());
    setWithout(choice.without);
    if (choice.found.length > 0)
      void change(`Types for ${counted(choice.found.length, 'device')}`, (draft) =>
        takeTypes(draft, choice.found, () => newId('q')),
      );
  };
  return (
    <div className="no-print grid gap-1">
      <p>
        <button type="button" className="button h-auto! py-1 whitespace-normal" onClick={take}>
          Take the smallest type that fits for the {counted(open, 'device')} without one
        </button>
      </p>
      {without.length > 0 && (
        <p className="text-[13px] text-quiet" role="status">
          The library has no type for {without.slice(0, MOST_NAMES).join(', ')}
          {without.length > MOST_NAMES && ` and ${without.length - MOST_NAMES} more`}: its rating, curve,
          poles or terminals fit none. What is not listed here waits for its load.
        </p>
      )}
    </div>
  );
}
