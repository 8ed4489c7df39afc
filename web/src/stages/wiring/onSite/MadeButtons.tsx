import type { DeliveryTick } from '@bastion/core';
import { Check, RotateCcw } from 'lucide-react';
import { tickOf } from '../../../state/deliveryTick.ts';
import { useJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';

/** What was made with the hands: done, or to be made again. Pressed once more it is taken back. */
export function MadeButtons({
  id,
  what,
  done,
  tick,
  may,
}: {
  readonly id: string;
  readonly what: string;
  readonly done: string;
  readonly tick: DeliveryTick | undefined;
  readonly may: boolean;
}) {
  const change = useJob((store) => store.change);
  const set = (state: 'ready' | 'damaged', label: string) => () =>
    void change(`${label}: ${what}`, (draft) =>
      put(tickOf(draft, id), 'state', tick?.state === state ? undefined : state),
    );
  const look = (state: DeliveryTick['state']): string =>
    `button ${tick?.state === state ? 'bg-chosen font-bold' : ''}`;
  return (
    <>
      <button
        type="button"
        className={look('ready')}
        aria-pressed={tick?.state === 'ready'}
        disabled={!may}
        onClick={set('ready', done)}
      >
        <Check size={18} aria-hidden="true" /> {done}
      </button>
      <button
        type="button"
        className={look('damaged')}
        aria-pressed={tick?.state === 'damaged'}
        disabled={!may}
        onClick={set('damaged', 'To be made again')}
      >
        <RotateCcw size={18} aria-hidden="true" /> To be made again
      </button>
    </>
  );
}
