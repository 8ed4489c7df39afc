import { type Design, formatQuantity } from '@bastion/core';
import { type KeyboardEvent, memo, useCallback, useMemo, useState } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { Cell } from './Cell.tsx';
import { applies, type Column, COLUMNS, type Row, rowKey } from './columns.ts';
import {
  addCircuitAfter,
  addItemAfter,
  deleteRow,
  duplicateRow,
  newCircuit,
  newItem,
  targetOf,
} from './rowEdits.ts';

interface Place {
  readonly row: number;
  readonly column: number;
}

const rowsOf = (design: Design): Row[] =>
  design.circuits.flatMap((circuit): Row[] => [
    { kind: 'circuit', circuit },
    ...circuit.items.map((item): Row => ({ kind: 'item', circuit, item })),
  ]);

/** Running VA of a row at the expected peak; undefined while something is missing. */
function expectedVa(row: Row): number | undefined {
  const items = row.kind === 'item' ? [row.item] : row.circuit.items;
  let sum = 0;
  for (const { quantity, runningW, powerFactor, demandFactor } of items) {
    if (
      quantity === undefined ||
      runningW === undefined ||
      powerFactor === undefined ||
      demandFactor === undefined
    )
      return undefined;
    sum += (quantity * runningW * demandFactor) / powerFactor;
  }
  return sum;
}

interface RowViewProps {
  readonly row: Row;
  readonly index: number;
  readonly active: number | undefined;
  readonly startText: string | undefined;
  readonly supply: Design['site']['supply'];
  readonly largestVa: number;
  readonly onActivate: (place: Place) => void;
  readonly onEdit: (place: Place) => void;
  readonly onDone: (
    row: Row,
    column: Column,
    text: string | undefined,
    then: 'stay' | 'down' | 'right' | 'left',
  ) => void;
}

const RowView = memo(function RowView({
  row,
  index,
  active,
  startText,
  supply,
  largestVa,
  onActivate,
  onEdit,
  onDone,
}: RowViewProps) {
  const va = expectedVa(row);
  return (
    <tr role="row" className={row.kind === 'circuit' ? 'row-circuit' : ''}>
      {COLUMNS.map((column, at) => (
        <Cell
          key={column.key}
          row={row}
          column={column}
          isActive={active === at}
          startText={active === at ? startText : undefined}
          supply={supply}
          onActivate={() => onActivate({ row: index, column: at })}
          onEdit={() => onEdit({ row: index, column: at })}
          onDone={(text, then) => onDone(row, column, text, then)}
        />
      ))}
      <td role="gridcell" aria-readonly="true" className="cell-number">
        {va === undefined ? <span className="text-unknown">not known</span> : formatQuantity(va, 'VA')}
      </td>
      <td role="gridcell" aria-readonly="true" className="w-24" aria-label="Share of the largest circuit">
        {va !== undefined && (
          <div
            className={row.kind === 'circuit' ? 'h-2 bg-ink' : 'h-1.5 bg-edge'}
            style={{ width: `${(100 * va) / Math.max(1, largestVa)}%` }}
          />
        )}
      </td>
    </tr>
  );
});

/** The survey table: moves, edits, adds, copies and deletes by keyboard; every change can be undone. */
export function LoadsTable() {
  const { design, canEdit } = useOpenJob();
  const { change, tell } = useJob();
  const rows = useMemo(() => rowsOf(design), [design]);
  const largestVa = useMemo(() => Math.max(0, ...rows.map((row) => expectedVa(row) ?? 0)), [rows]);
  const [wanted, setPlace] = useState<Place>({ row: 0, column: 0 });
  // Rows may have gone, by delete or by undo: the cell in hand is always one that is there.
  const place: Place = { row: Math.min(wanted.row, rows.length - 1), column: wanted.column };
  const [startText, setStartText] = useState<string>();

  const goTo = useCallback(
    (next: Place): void => {
      const row = Math.min(Math.max(next.row, 0), rows.length - 1);
      const column = Math.min(Math.max(next.column, 0), COLUMNS.length - 1);
      setPlace((now) => (now.row === row && now.column === column ? now : { row, column }));
    },
    [rows.length],
  );

  const edit = useCallback(
    (at: Place, text?: string): void => {
      const row = rows[at.row];
      const column = COLUMNS[at.column];
      if (!canEdit || row === undefined || column === undefined || !applies(column, row)) return;
      setPlace(at);
      setStartText(text ?? column.show(row));
    },
    [rows, canEdit],
  );

  const take = useCallback(
    (row: Row, column: Column, text: string): void => {
      let refused: string | undefined;
      const problems = change(
        `${column.title} of ${row.kind === 'circuit' ? row.circuit.name : row.item.name}`,
        (draft) => {
          const target = targetOf(draft, row);
          if (target === undefined) return;
          const taken = column.take(target, text);
          if (!taken.ok) refused = taken.message;
        },
      );
      const message = refused ?? problems[0]?.message;
      if (message !== undefined)
        tell(
          `${column.title} was not changed: "${text}" ${refused === undefined ? message : `is not taken. ${refused}`}`,
        );
    },
    [change, tell],
  );

  const onDone = useCallback(
    (row: Row, column: Column, text: string | undefined, then: 'stay' | 'down' | 'right' | 'left'): void => {
      setStartText(undefined);
      if (text !== undefined && text !== column.show(row)) take(row, column, text);
      setPlace((now) => ({
        row: Math.min(now.row + (then === 'down' ? 1 : 0), rows.length - 1),
        column: Math.min(
          Math.max(now.column + (then === 'right' ? 1 : then === 'left' ? -1 : 0), 0),
          COLUMNS.length - 1,
        ),
      }));
    },
    [take, rows.length],
  );

  const addItem = (row: Row): void => {
    change('Add an item', (draft) => addItemAfter(draft, row, newItem()));
    goTo({ row: place.row + 1, column: 0 });
  };
  const addCircuit = (row: Row | undefined): void => {
    change('Add a circuit', (draft) => addCircuitAfter(draft, row, newCircuit()));
    const below =
      row === undefined ? rows.length : rows.findLastIndex((one) => one.circuit.id === row.circuit.id) + 1;
    setPlace({ row: below, column: 0 });
  };

  const onCommand = (event: KeyboardEvent, row: Row): boolean => {
    const column = COLUMNS[place.column];
    const control = event.ctrlKey || event.metaKey;
    if (event.altKey && event.key === 'Enter')
      (event.shiftKey ? () => addCircuit(row) : () => addItem(row))();
    else if (control && event.key.toLowerCase() === 'd')
      change('Duplicate the row', (draft) => duplicateRow(draft, row));
    else if (control && event.key === 'Delete') {
      change('Delete the row', (draft) => deleteRow(draft, row));
      goTo({ row: place.row - (row.kind === 'item' ? 0 : 1), column: place.column });
    } else if (
      !control &&
      (event.key === 'Delete' || event.key === 'Backspace') &&
      column !== undefined &&
      applies(column, row)
    )
      take(row, column, '');
    else return false;
    return true;
  };

  const onMove = (event: KeyboardEvent): boolean => {
    const steps: Record<string, Place> = {
      ArrowUp: { row: place.row - 1, column: place.column },
      ArrowDown: { row: place.row + 1, column: place.column },
      ArrowLeft: { row: place.row, column: place.column - 1 },
      ArrowRight: { row: place.row, column: place.column + 1 },
      Home: { row: event.ctrlKey ? 0 : place.row, column: 0 },
      End: { row: event.ctrlKey ? rows.length - 1 : place.row, column: COLUMNS.length - 1 },
      PageUp: { row: place.row - 15, column: place.column },
      PageDown: { row: place.row + 15, column: place.column },
    };
    const next = steps[event.key];
    if (next === undefined) return false;
    goTo(next);
    return true;
  };

  const onKeyDown = (event: KeyboardEvent): void => {
    const row = rows[place.row];
    if (startText !== undefined || row === undefined) return;
    if (canEdit && onCommand(event, row)) event.preventDefault();
    else if (onMove(event)) event.preventDefault();
    else if (event.key === 'Enter' || event.key === 'F2') {
      edit(place);
      event.preventDefault();
    } else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) {
      const isList = COLUMNS[place.column]?.options !== undefined;
      edit(place, isList ? undefined : event.key);
      event.preventDefault();
    }
  };

  const here = rows[place.row];
  return (
    <>
      {canEdit && (
        <div className="no-print mb-2 flex flex-wrap gap-2">
          <button type="button" className="button" onClick={() => addCircuit(here)}>
            Add circuit
          </button>
          <button
            type="button"
            className="button"
            disabled={here === undefined}
            onClick={() => here !== undefined && addItem(here)}
          >
            Add item
          </button>
          <button
            type="button"
            className="button"
            disabled={here === undefined}
            onClick={() =>
              here !== undefined && change('Duplicate the row', (draft) => duplicateRow(draft, here))
            }
          >
            Duplicate row
          </button>
          <button
            type="button"
            className="button"
            disabled={here === undefined}
            onClick={() => here !== undefined && change('Delete the row', (draft) => deleteRow(draft, here))}
          >
            Delete row
          </button>
        </div>
      )}
      <div className="sheet max-h-[calc(100dvh-220px)] overflow-auto print:max-h-none">
        <table role="grid" aria-label="Circuits and items" className="grid-table" onKeyDown={onKeyDown}>
          <thead>
            <tr role="row">
              {COLUMNS.map((column) => (
                <th
                  key={column.key}
                  role="columnheader"
                  scope="col"
                  title={column.hint}
                  className={column.numeric ? 'cell-number' : ''}
                >
                  {column.title}{' '}
                  {column.unit !== undefined && <span className="font-normal">{column.unit}</span>}
                </th>
              ))}
              <th role="columnheader" scope="col" className="cell-number" title="Quantity × W × demand / pf">
                Expected
              </th>
              <th role="columnheader" scope="col">
                Share
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              <RowView
                key={rowKey(row)}
                row={row}
                index={index}
                active={place.row === index ? place.column : undefined}
                startText={place.row === index ? startText : undefined}
                supply={design.site.supply}
                largestVa={largestVa}
                onActivate={goTo}
                onEdit={edit}
                onDone={onDone}
              />
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
