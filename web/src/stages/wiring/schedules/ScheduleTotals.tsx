import type { Schedule } from '@bastion/core';
import { ScheduleTable } from './ScheduleTable.tsx';

const NOTHING = new Set<string>();

/** What the rows of a schedule come to, read before them; nothing where they come to nothing. */
export function ScheduleTotals({ totals }: { readonly totals: Schedule | undefined }) {
  if (totals === undefined || totals.rows.length === 0) return null;
  return (
    <section className="grid grid-cols-[minmax(0,1fr)] gap-1">
      <h3 className="text-[13px] text-quiet">{totals.title}</h3>
      <ScheduleTable schedule={totals} filter="" hidden={{}} chosen={NOTHING} isWhole />
    </section>
  );
}
