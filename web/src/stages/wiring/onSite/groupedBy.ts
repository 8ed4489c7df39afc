import { cellText, type ScheduleRow } from '@bastion/core';

/** Rows of a schedule by what stands in one of their cells, in the order in which it first comes. */
export function groupedBy(
  rows: readonly ScheduleRow[],
  key: string,
): ReadonlyMap<string, readonly ScheduleRow[]> {
  const groups = new Map<string, ScheduleRow[]>();
  for (const row of rows) {
    const name = cellText(row.cells[key]);
    const found = groups.get(name);
    if (found === undefined) groups.set(name, [row]);
    else found.push(row);
  }
  return groups;
}
