import { counted, takeTypes, typesForDevices } from '@bastion/core';
import { useMemo } from 'react';
import { catalogueNow } from '../../../state/catalogue.ts';
import { newId, useJob, useOpenJob } from '../../../state/job.ts';

/** More names than this are counted, not listed. */
const MOST_NAMES = 4;

/** A type from the library for every device that has none: one step, and one undo. */
export function DevicesForm() {
  const { analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const { found, without } = useMemo(
    () => typesForDevices(analysis.installation, catalogueNow()),
    [analysis.installation],
  );
  if (!canEdit || (found.length === 0 && without.length === 0)) return null;
  return (
    <div className="no-print grid gap-1">
      {found.length > 0 && (
        <p>
          <button
            type="button"
            className="button h-auto! py-1 whitespace-normal"
            onClick={() =>
              void change(`Types for ${counted(found.length, 'device')}`, (draft) =>
                takeTypes(draft, found, () => newId('q')),
              )
            }
          >
            Take the smallest type that fits for the {counted(found.length, 'device')} without one
          </button>
        </p>
      )}
      {without.length > 0 && (
        <p className="text-[13px] text-quiet">
          The library has no type for {without.slice(0, MOST_NAMES).join(', ')}
          {without.length > MOST_NAMES && ` and ${without.length - MOST_NAMES} more`}: its rating, curve or
          terminals fit none.
        </p>
      )}
    </div>
  );
}
