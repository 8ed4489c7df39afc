import type { DeliveryTick, Design } from '@bastion/core';

/** The tick of a line of the delivery list; made where nobody has looked yet. */
export function tickOf(draft: Design, lineId: string): DeliveryTick {
  const there = draft.delivery.find((one) => one.id === lineId);
  if (there !== undefined) return there;
  draft.delivery.push({ id: lineId });
  // What was put in comes back as a part of the draft.
  return draft.delivery.at(-1) ?? { id: lineId };
}

/** Puts a photo to its line; one that was sent before, and told only now, is there already. */
export function addPhoto(draft: Design, lineId: string, photoId: number): void {
  const tick = tickOf(draft, lineId);
  if (tick.photoIds?.includes(photoId) === true) return;
  tick.photoIds = [...(tick.photoIds ?? []), photoId];
}
