import {
  compile,
  type Design,
  SAMPLE_TYPES,
  type Schedule,
  scheduleOf,
  type ScheduleKind,
  type RowState,
} from '@bastion/core';
import Papa from 'papaparse';

/** A schedule for whoever reads it by program: plain rows under the keys of the columns; null where something is not known. */
export interface ScheduleReport {
  readonly kind: ScheduleKind;
  readonly title: string;
  readonly notes: readonly string[];
  readonly columns: readonly { readonly key: string; readonly title: string; readonly unit?: string }[];
  readonly rows: readonly {
    readonly id: string;
    readonly state: RowState | undefined;
    readonly cells: Readonly<Record<string, string | number | null>>;
  }[];
  /** What the rows come to, where they come to something. */
  readonly totals?: Pick<ScheduleReport, 'title' | 'columns' | 'rows'>;
}

const rowsOf = ({ rows }: Schedule): ScheduleReport['rows'] =>
  rows.map(({ id, state, cells }) => ({ id, state, cells }));

/** One schedule of a design. */
export function scheduleReport(design: Design, kind: ScheduleKind): ScheduleReport {
  const installation = compile(design, SAMPLE_TYPES);
  const schedule = scheduleOf(kind, { design, catalogue: SAMPLE_TYPES, installation });
  const { title, notes, columns, totals } = schedule;
  return {
    kind,
    title,
    notes,
    columns,
    rows: rowsOf(schedule),
    ...(totals && { totals: { title: totals.title, columns: totals.columns, rows: rowsOf(totals) } }),
  };
}

/** The same as a sheet: an empty cell where something is not known, and what begins like a formula stays text. */
export function scheduleCsv({ columns, rows }: ScheduleReport): string {
  const heads = columns.map(({ title, unit }) => (unit === undefined ? title : `${title} [${unit}]`));
  const body = rows.map(({ cells }) => columns.map(({ key }) => cells[key] ?? ''));
  return `${Papa.unparse([heads, ...body], { escapeFormulae: true, newline: '\n' })}\n`;
}
