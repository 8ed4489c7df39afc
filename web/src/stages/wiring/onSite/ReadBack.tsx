import type { DeliveryTick, Problem } from '@bastion/core';
import { Check } from 'lucide-react';
import { tickOf } from '../../../state/deliveryTick.ts';
import { useJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { TextField } from '../../../ui/fields.tsx';

/** What a display, a plate or a tape shows: typed, or said to be just what is wanted. An emptied field is one that nobody has read. */
export function ReadBack({
  id,
  label,
  wanted,
  same,
  tick,
  may,
}: {
  readonly id: string;
  readonly label: string;
  /** Undefined where nobody knows what is wanted. */
  readonly wanted: string | undefined;
  readonly same: string;
  readonly tick: DeliveryTick | undefined;
  readonly may: boolean;
}) {
  const change = useJob((store) => store.change);
  const take = (text: string): readonly Problem[] =>
    change(label, (draft) => {
      const note = tickOf(draft, id);
      const read = text.trim();
      put(note, 'read', read === '' ? undefined : read);
      put(note, 'state', read === '' ? undefined : 'ready');
    });
  return (
    <>
      {wanted !== undefined && (
        <button type="button" className="button" disabled={!may} onClick={() => void take(wanted)}>
          <Check size={18} aria-hidden="true" /> {same}
        </button>
      )}
      <div className="w-56">
        <TextField
          label={label}
          path={['delivery', id, 'read']}
          value={tick?.read ?? ''}
          disabled={!may}
          onTake={take}
        />
      </div>
    </>
  );
}
