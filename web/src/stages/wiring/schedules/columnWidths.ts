import { cellText, type Schedule } from '@bastion/core';

const LEAST_CH = 6;
const MOST_CH = 30;
/** A column is as wide as most of its texts; the few longer ones wrap. */
const MOST_OF = 0.9;
/** The state is a mark, with room for its heading. */
const STATE_CH = 6;

/** Widths for columns of a long schedule, ch: fixed, so that nothing jumps while rows come and go under the pointer. */
export function columnWidths({ columns, rows }: Schedule, keys: readonly string[]): number[] {
  return keys.map((key) => {
    const column = columns.find((one) => one.key === key);
    if (column === undefined) return STATE_CH;
    const lengths = rows.map(({ cells }) => cellText(cells[key]).length).sort((a, b) => a - b);
    const usual = lengths[Math.floor(MOST_OF * (lengths.length - 1))] ?? 0;
    const heading = column.title.length + (column.unit === undefined ? 0 : column.unit.length + 2) + 2;
    return Math.min(MOST_CH, Math.max(LEAST_CH, heading, usual));
  });
}
