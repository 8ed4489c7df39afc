import { lengthIn, type LengthUnit } from '../words/length.ts';
import type { Cell, Row, Schedule } from './table.ts';

/** Lengths on a schedule are read to a tenth of a foot. */
const TENTH = 10;

const inFeet = (cell: Cell | undefined): Cell =>
  typeof cell === 'number' ? Math.round(lengthIn(cell, 'ft') * TENTH) / TENTH : (cell ?? null);

/** A schedule with its lengths in the unit of the region: columns in metres, and cells whose unit stands beside them. */
export function inRegion(schedule: Schedule, unit: LengthUnit): Schedule {
  if (unit === 'm') return schedule;
  const { totals, ...own } = schedule;
  return totals === undefined ? inFeetAll(own) : { ...inFeetAll(own), totals: inFeetAll(totals) };
}

function inFeetAll(schedule: Schedule): Schedule {
  const columns = schedule.columns.map((column) =>
    column.unit === 'm' ? { ...column, unit: 'ft' } : column,
  );
  const ofLength = schedule.columns.flatMap((column) => (column.unit === 'm' ? [column.key] : []));
  const hasOwnUnit = schedule.columns.some(({ key }) => key === 'unit');
  const converted = (row: Row): Row => {
    const cells: Record<string, Cell> = { ...row.cells };
    for (const key of ofLength) cells[key] = inFeet(cells[key]);
    if (hasOwnUnit && cells.unit === 'm') Object.assign(cells, { unit: 'ft', count: inFeet(cells.count) });
    return { ...row, cells };
  };
  if (ofLength.length === 0 && !hasOwnUnit) return schedule;
  const rows = schedule.rows.map((row) => {
    const before = rowIn.get(row);
    if (before !== undefined) return before;
    const made = converted(row);
    rowIn.set(row, made);
    return made;
  });
  return { ...schedule, columns, rows };
}

/** Rows that did not change stay the same objects in feet too: what shows them need not draw them again. */
const rowIn = new WeakMap<Row, Row>();
