import { expect } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { Design } from '../design/schema.ts';
import { compile } from '../installation/compile.ts';
import { scheduleOf } from '../schedules/scheduleOf.ts';
import type { Cell, Row, Schedule, ScheduleKind } from '../schedules/table.ts';
import { bonded } from './bonding.ts';
import { baseDesign } from './designs.ts';

/** A schedule of the base design, as it is edited. */
export function scheduleWith(kind: ScheduleKind, edit: (design: Design) => void): Schedule {
  const design = baseDesign();
  bonded(design);
  edit(design);
  const installation = compile(design, SAMPLE_TYPES);
  return scheduleOf(kind, { design, catalogue: SAMPLE_TYPES, installation });
}

/** Its rows. */
export function rowsOf(kind: ScheduleKind, edit: (design: Design) => void = () => undefined): readonly Row[] {
  const { rows } = scheduleWith(kind, edit);
  expect(JSON.stringify(rows), 'code in words').not.toMatch(/=>|undefined|NaN|\[object/);
  return rows;
}

/** The cells of the first row that has some. */
export const cellsOf = (
  rows: readonly Row[],
  has: Readonly<Record<string, Cell>>,
): Readonly<Record<string, Cell>> => {
  const found = rows.find(({ cells }) => Object.entries(has).every(([key, value]) => cells[key] === value));
  if (found === undefined) throw new Error(`No row with ${JSON.stringify(has)}.`);
  return found.cells;
};
