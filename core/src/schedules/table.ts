import type { Path } from '../values/problem.ts';

/** What stands in a cell; null where it is not known. */
export type Cell = string | number | null;

/** A column of a schedule. */
export interface Column<Key extends string = string> {
  readonly key: Key;
  readonly title: string;
  readonly unit?: string;
}

/** How a row stands against its limits. */
export type RowState = 'within' | 'tight' | 'over' | 'unknown';

/** One line of a schedule. */
export interface Row<Key extends string = string> {
  readonly id: string;
  /** The parts of the installation that it is about, for the drawing. */
  readonly partIds: readonly string[];
  readonly cells: Readonly<Record<Key, Cell>>;
  readonly state?: RowState;
  /** The port of the installation that it is about, where its terminal data can be typed. */
  readonly portId?: string;
  /** Where a cell is typed, for those that are. */
  readonly fields?: Readonly<Partial<Record<Key, Path>>>;
}

export const SCHEDULE_KINDS = [
  'conductors',
  'terminations',
  'comms',
  'sensors',
  'devices',
  'settings',
  'cuts',
  'parts',
  'labels',
  'fittings',
  'as-built',
] as const;
export type ScheduleKind = (typeof SCHEDULE_KINDS)[number];

/** A table that follows from the installation, for screen, sheet and paper. */
export interface Schedule<Key extends string = string> {
  readonly kind: ScheduleKind;
  readonly title: string;
  readonly columns: readonly Column<Key>[];
  readonly rows: readonly Row<Key>[];
  /** What somebody should know before reading it, each a sentence. */
  readonly notes: readonly string[];
  /** What its rows come to, as a table that is read first. */
  readonly totals?: Schedule;
}
