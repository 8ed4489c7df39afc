import { counted, type Design, formatPath } from '@bastion/core';
import { type ClipboardEvent, type KeyboardEvent, useCallback, useMemo, useState } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { applies, type Column, COLUMNS, type Row } from './columns.ts';
import { commandOf, type GridCommand, type Place, within } from './gridKeys.ts';
import {
  addCircuitAfter,
  addItemAfter,
  deleteRow,
  duplicateRow,
  newCircuit,
  newItem,
  targetOf,
} from './rowEdits.ts';
import { pasteBlock, readBlock } from './paste.ts';
import type { Then } from './RowView.tsx';

const rowsOf = (design: Design): Row[] =>
  design.circuits.flatMap((circuit): Row[] => [
    { kind: 'circuit', circuit },
    ...circuit.items.map((item): Row => ({ kind: 'item', circuit, item })),
  ]);

const MOVES: Record<Then, Place> = {
  stay: { row: 0, column: 0 },
  down: { row: 1, column: 0 },
  right: { row: 0, column: 1 },
  left: { row: 0, column: -1 },
};

/** Takes typed text over into the design, or tells why it cannot be. */
function useTake(): (row: Row, column: Column, text: string) => void {
  const { change, tell } = useJob();
  return useCallback(
    (row, column, text) => {
      let refused: string | undefined;
      const name = row.kind === 'circuit' ? row.circuit.name : row.item.name;
      const problems = change(`${column.title} of ${name}`, (draft) => {
        const target = targetOf(draft, row);
        if (target === undefined) return;
        const taken = column.take(target, text);
        if (!taken.ok) refused = taken.message;
      });
      const why = refused ?? problems[0]?.message;
      if (why !== undefined)
        tell(
          `${column.title} was not changed: "${text}" ${refused === undefined ? why : `is not taken. ${refused}`}`,
        );
    },
    [change, tell],
  );
}

/** The survey table's rows, the cell in hand, and what keys and buttons do to them. */
export function useLoadsGrid() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const tell = useJob((store) => store.tell);
  const take = useTake();
  const rows = useMemo(() => rowsOf(design), [design]);
  const size = useMemo((): Place => ({ row: rows.length, column: COLUMNS.length }), [rows.length]);
  const [wanted, setPlace] = useState<Place>({ row: 0, column: 0 });
  const [startText, setStartText] = useState<string>();
  // Rows may have gone, by delete or by undo: the cell in hand is always one that is there.
  const place = within(wanted, size);
  const here = rows[place.row];

  const goTo = useCallback(
    (to: Place): void => setPlace((now) => (now.row === to.row && now.column === to.column ? now : to)),
    [],
  );

  const edit = useCallback(
    (at: Place, text?: string): void => {
      const row = rows[at.row];
      const column = COLUMNS[at.column];
      if (!canEdit || row === undefined || column === undefined || !applies(column, row)) return;
      setPlace(at);
      // A list starts from its choice; a figure starts from what was typed.
      setStartText(column.options === undefined ? (text ?? column.show(row)) : column.show(row));
    },
    [rows, canEdit],
  );

  const onDone = useCallback(
    (row: Row, column: Column, text: string | undefined, then: Then): void => {
      setStartText(undefined);
      if (text !== undefined && text !== column.show(row)) take(row, column, text);
      const by = MOVES[then];
      setPlace((now) => within({ row: now.row + by.row, column: now.column + by.column }, size));
    },
    [take, size],
  );

  const run = (command: Exclude<GridCommand, { kind: 'move' | 'edit' }>): void => {
    const column = COLUMNS[place.column];
    if (!canEdit) return;
    if (command.kind === 'add-circuit') {
      change('Add a circuit', (draft) => addCircuitAfter(draft, here, newCircuit()));
      const last = rows.findLastIndex((row) => row.circuit.id === here?.circuit.id);
      setPlace({ row: last + 1, column: 0 });
    } else if (here === undefined) return;
    else if (command.kind === 'add-item') {
      change('Add an item', (draft) => addItemAfter(draft, here, newItem()));
      setPlace({ row: place.row + 1, column: 0 });
    } else if (command.kind === 'duplicate')
      change('Duplicate the row', (draft) => duplicateRow(draft, here));
    else if (command.kind === 'delete') change('Delete the row', (draft) => deleteRow(draft, here));
    else if (column !== undefined && applies(column, here)) take(here, column, '');
  };

  const onPaste = (event: ClipboardEvent): void => {
    if (startText !== undefined || !canEdit || here === undefined) return;
    event.preventDefault();
    const pasted = pasteBlock(design, rows, place, readBlock(event.clipboardData.getData('text/plain')));
    if (!pasted.ok) {
      tell(pasted.message);
      return;
    }
    const [problem] = change(
      `Paste ${counted(pasted.lines, 'line')}`,
      (draft) => void Object.assign(draft, pasted.design),
    );
    if (problem !== undefined) tell(`Nothing was pasted: ${formatPath(problem.path)} ${problem.message}`);
  };

  const onKeyDown = (event: KeyboardEvent): void => {
    if (startText !== undefined) return;
    const command = commandOf(event, place, size);
    if (command === undefined) return;
    event.preventDefault();
    if (command.kind === 'move') goTo(command.to);
    else if (command.kind === 'edit') edit(place, command.text);
    else run(command);
  };

  return { rows, place, startText, goTo, edit, onDone, run, onPaste, onKeyDown };
}
