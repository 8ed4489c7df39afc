import type { Circuit, Design } from '@bastion/core';
import { applies, type Column, COLUMNS, type Row } from './columns.ts';
import { expectedVa } from './expectedVa.ts';

/** How the table is looked at: nothing of this changes the design. */
export interface TableView {
  readonly filter: string;
  readonly onlyMissing: boolean;
  /** Key of the column it is sorted by, or 'expected'; undefined: in the order of the board. */
  readonly sortKey: string | undefined;
  readonly descending: boolean;
  readonly hidden: readonly string[];
}

export const FIRST_VIEW: TableView = {
  filter: '',
  onlyMissing: false,
  sortKey: undefined,
  descending: false,
  hidden: COLUMNS.filter((column) => column.isExtra).map((column) => column.key),
};

export const shownColumns = (view: TableView): readonly Column[] =>
  COLUMNS.filter((column) => column.key === 'name' || !view.hidden.includes(column.key));

const made = new WeakMap<Circuit, readonly Row[]>();

/** The rows of a circuit; the same ones as long as the circuit is the same, so that only changed rows are drawn again. */
function rowsOfCircuit(circuit: Circuit, board: string | undefined): readonly Row[] {
  const known = made.get(circuit);
  if (known?.[0]?.kind === 'circuit' && known[0].board === board) return known;
  const rows: readonly Row[] = [
    { kind: 'circuit', circuit, board },
    ...circuit.items.map((item): Row => ({ kind: 'item', circuit, item })),
  ];
  made.set(circuit, rows);
  return rows;
}

const isMissing = (column: Column, row: Row): boolean =>
  applies(column, row) && column.standIn === undefined && column.show(row) === '';

function keeps(row: Row, view: TableView): boolean {
  const name = row.kind === 'circuit' ? row.circuit.name : row.item.name;
  const wanted = view.filter.trim().toLowerCase();
  if (wanted !== '' && !name.toLowerCase().includes(wanted)) return false;
  return !view.onlyMissing || COLUMNS.some((column) => isMissing(column, row));
}

type Sortable = number | string | undefined;

function sortValue(row: Row, key: string): Sortable {
  if (key === 'expected') return expectedVa(row);
  const column = COLUMNS.find((one) => one.key === key);
  if (column === undefined || !applies(column, row)) return undefined;
  const shown = column.show(row) || (column.standIn?.(row) ?? '');
  if (shown === '') return undefined;
  return column.numeric && Number.isFinite(Number(shown)) ? Number(shown) : shown.toLowerCase();
}

/** Empty cells come last whichever way the table is sorted. */
function compareValues(a: Sortable, b: Sortable, descending: boolean): number {
  if (a === undefined || b === undefined) return Number(a === undefined) - Number(b === undefined);
  const order = typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b));
  return descending ? -order : order;
}

/** A circuit stands where its own cell says, or its item that comes first. */
function circuitValue(rows: readonly Row[], key: string, descending: boolean): Sortable {
  const [head, ...items] = rows;
  const own = head === undefined ? undefined : sortValue(head, key);
  if (own !== undefined) return own;
  return items.map((row) => sortValue(row, key)).sort((a, b) => compareValues(a, b, descending))[0];
}

/** The rows as they are looked at: a circuit stays with its items; a match on one shows the other. */
export function rowsOf(design: Design, view: TableView): readonly Row[] {
  const { sortKey, descending } = view;
  const boards = new Map(design.partitions.map(({ id, name }) => [id, name]));
  const groups = design.circuits
    .map((circuit) => rowsOfCircuit(circuit, boards.get(circuit.partitionId ?? '')))
    .flatMap((rows) => {
      if (view.filter.trim() === '' && !view.onlyMissing) return [rows];
      const [head, ...items] = rows;
      if (head === undefined) return [];
      const kept = items.filter((row) => keeps(row, view));
      if (keeps(head, view)) return [view.onlyMissing ? [head, ...kept] : rows];
      return kept.length > 0 ? [[head, ...kept]] : [];
    });
  if (sortKey === undefined) return groups.flat();
  return groups
    .map((rows) => {
      const [head, ...items] = rows;
      if (head === undefined) return { rows, value: undefined };
      const sorted = items.sort((a, b) =>
        compareValues(sortValue(a, sortKey), sortValue(b, sortKey), descending),
      );
      return { rows: [head, ...sorted], value: circuitValue(rows, sortKey, descending) };
    })
    .sort((a, b) => compareValues(a.value, b.value, descending))
    .flatMap(({ rows }) => rows);
}
