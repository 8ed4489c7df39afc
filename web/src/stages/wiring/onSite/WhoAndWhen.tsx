import type { DeliveryTick } from '@bastion/core';

/** Who noted something on site, and when; and that it is not this person's to change. */
export function WhoAndWhen({
  tick,
  may,
}: {
  readonly tick: DeliveryTick | undefined;
  readonly may: boolean;
}) {
  if (tick?.by === undefined) return null;
  return (
    <p className="text-[13px] text-quiet">
      {tick.by}
      {tick.at !== undefined && `, ${new Date(tick.at).toLocaleString()}`}
      {!may && ' – they, or a designer, can change it'}
    </p>
  );
}
