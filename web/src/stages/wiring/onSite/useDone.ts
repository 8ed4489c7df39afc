import type { DeliveryTick, Wiring } from '@bastion/core';
import { useMemo } from 'react';
import { useOpenJob } from '../../../state/job.ts';

type Gate = NonNullable<Wiring['photoGates']>[number];

/** What of the notes made on site counts as done: ticked, and with a photo where the job asks for one. */
export function useDone(gate?: Gate): {
  readonly tickFor: (id: string) => DeliveryTick | undefined;
  readonly isDone: (id: string) => boolean;
  readonly isAgain: (id: string) => boolean;
  readonly wantsPhoto: boolean;
} {
  const { design } = useOpenJob();
  const wantsPhoto = gate !== undefined && design.wiring?.photoGates?.includes(gate) === true;
  const ticks = useMemo(() => new Map(design.delivery.map((tick) => [tick.id, tick])), [design.delivery]);
  return {
    tickFor: (id) => ticks.get(id),
    isDone: (id) => {
      const tick = ticks.get(id);
      return tick?.state === 'ready' && (!wantsPhoto || (tick.photoIds?.length ?? 0) > 0);
    },
    isAgain: (id) => ticks.get(id)?.state === 'damaged',
    wantsPhoto,
  };
}
