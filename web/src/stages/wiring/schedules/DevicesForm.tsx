import {
  counted,
  describePlaces,
  takeTypes,
  typesForDevices,
  uniquePaths,
  untypedCount,
} from '@bastion/core';
import { useMemo, useState } from 'react';
import { catalogueNow } from '../../../state/catalogue.ts';
import { newId, useJob, useOpenJob } from '../../../state/job.ts';

/** More names than this are counted, not listed. */
const MOST_NAMES = 4;

/** Chosen types whose breaking capacity could not be held against every source. */
interface Unheld {
  readonly labels: readonly string[];
  readonly missing: string;
}

const namesOf = (labels: readonly string[]): string =>
  `${labels.slice(0, MOST_NAMES).join(', ')}${labels.length > MOST_NAMES ? ` and ${labels.length - MOST_NAMES} more` : ''}`;

/** A type from the library for every device that has none: one step, and one undo. They are looked for when somebody asks. */
export function DevicesForm() {
  const { analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const [without, setWithout] = useState<readonly string[]>([]);
  const [unheld, setUnheld] = useState<Unheld>();
  const open = useMemo(() => untypedCount(analysis.installation), [analysis.installation]);
  if (!canEdit || (open === 0 && unheld === undefined)) return null;
  const take = (): void => {
    const choice = typesForDevices(analysis.installation, catalogueNow());
    const open = choice.found.filter(({ faultMissing }) => faultMissing.length > 0);
    setWithout(choice.without);
    setUnheld(
      open.length === 0
        ? undefined
        : {
            labels: open.map(({ label }) => label),
            missing: describePlaces(
              analysis.installation,
              uniquePaths(open.flatMap(({ faultMissing }) => faultMissing)),
            ),
          },
    );
    if (choice.found.length > 0)
      void change(`Types for ${counted(choice.found.length, 'device')}`, (draft) =>
        takeTypes(draft, choice.found, () => newId('q')),
      );
  };
  return (
    <div className="no-print grid gap-1">
      {open > 0 && (
        <p>
          <button type="button" className="button h-auto! py-1 whitespace-normal" onClick={take}>
            Take the smallest type that fits for the {counted(open, 'device')} without one
          </button>
        </p>
      )}
      {unheld !== undefined && (
        <p className="text-[13px] text-unknown" role="status">
          What {namesOf(unheld.labels)} can open is not held against every fault: what some source drives is
          not known. Missing: {unheld.missing}.
        </p>
      )}
      {without.length > 0 && (
        <p className="text-[13px] text-quiet" role="status">
          The library has no type for {namesOf(without)}: its rating, curve, poles or terminals fit none. What
          is not listed here waits for its load.
        </p>
      )}
    </div>
  );
}
