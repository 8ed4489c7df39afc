import { counted, type Design, formatPath } from '@bastion/core';
import { produce } from 'immer';
import { type ClipboardEvent, type KeyboardEvent, useCallback, useMemo, useState } from 'react';
import { isFirst, keepFirst } from '../../state/firstValues.ts';
import { useJob, useOpenJob } from '../../state/job.ts';
import { cellField, type Column, isTypable, type Row, type Taken } from './columns.ts';
import { commandOf, isOneCell, type Place, rangeBetween, type RowCommand, within } from './gridKeys.ts';
import { fillRange, hasHeadings, pasteBlock, readBlock, writeBlock } from './paste.ts';
import {
  addCircuitAfter,
  addItemAfter,
  deleteRow,
  duplicateRow,
  newCircuit,
  newItem,
  targetOf,
  settleSurvey,
} from './rowEdits.ts';
import type { Then } from './RowView.tsx';
import { rowsOf, shownColumns, type TableView } from './tableView.ts';

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
      const problems = change(
        `${column.title} of ${name}`,
        (draft) => {
          const target = targetOf(draft, row);
          if (target === undefined) return;
          const taken = column.take(target, text, draft);
          if (!taken.ok) refused = taken.message;
        },
        settleSurvey,
      );
      const why = refused ?? problems[0]?.message;
      if (why !== undefined)
        tell(
          `${column.title} was not changed: "${text}" ${refused === undefined ? why : `is not taken. ${refused}`}`,
        );
    },
    [change, tell],
  );
}

/** The cell in hand and the corner from which a selection reaches to it. */
function useSelection(size: Place) {
  const [wanted, setWanted] = useState<{ place: Place; anchor: Place }>({
    place: { row: 0, column: 0 },
    anchor: { row: 0, column: 0 },
  });
  // Rows may have gone, by delete or by undo: the cell in hand is always one that is there.
  const place = within(wanted.place, size);
  const anchor = within(wanted.anchor, size);
  const goTo = useCallback(
    (to: Place, extend = false): void =>
      setWanted((now) => {
        const next = extend ? now.anchor : to;
        const same = (a: Place, b: Place): boolean => a.row === b.row && a.column === b.column;
        return same(now.place, to) && same(now.anchor, next) ? now : { place: to, anchor: next };
      }),
    [],
  );
  const select = useCallback((from: Place, to: Place): void => setWanted({ anchor: from, place: to }), []);
  return { place, range: rangeBetween(anchor, place), goTo, select };
}

export interface LoadsGridOptions {
  readonly view: TableView;
  /** A pasted block that brings its own headings. */
  readonly onHeadedBlock: (block: readonly (readonly string[])[]) => void;
}

/** The survey table's rows, the cell in hand, the selection, and what keys and buttons do to them. */
export function useLoadsGrid({ view, onHeadedBlock }: LoadsGridOptions) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const tell = useJob((store) => store.tell);
  const take = useTake();
  const rows = useMemo(() => rowsOf(design, view), [design, view]);
  const columns = useMemo(() => shownColumns(view), [view]);
  const size = useMemo((): Place => ({ row: rows.length, column: columns.length }), [rows, columns]);
  const { place, range, goTo, select } = useSelection(size);
  const [startText, setStartText] = useState<string>();
  const here = rows[place.row];

  const edit = useCallback(
    (at: Place, text?: string): void => {
      const row = rows[at.row];
      const column = columns[at.column];
      if (!canEdit || row === undefined || column === undefined || !isTypable(column, row)) return;
      goTo(at);
      // A list starts from its choice; a figure starts from what was typed.
      setStartText(column.options === undefined ? (text ?? column.show(row)) : column.show(row));
    },
    [rows, columns, canEdit, goTo],
  );

  const onDone = useCallback(
    (row: Row, column: Column, text: string | undefined, then: Then): void => {
      setStartText(undefined);
      if (text !== undefined && text !== column.show(row)) take(row, column, text);
      // Opened and left as it is: somebody has looked at it.
      else if (text !== undefined && isFirst(cellField(row, column)))
        keepFirst(`Keep ${column.title}`, new Set([cellField(row, column)]));
      const by = MOVES[then];
      const at = rows.indexOf(row);
      const column_ = columns.indexOf(column);
      goTo(within({ row: at + by.row, column: column_ + by.column }, size));
    },
    [take, size, goTo, rows, columns],
  );

  /** Takes a design over that was worked out from this one, as one step; the sentence says why not. */
  const takeOver = (label: string, next: Design): void => {
    const [problem] = change(label, (draft) => void Object.assign(draft, next), settleSurvey);
    if (problem !== undefined) tell(`Nothing was changed: ${formatPath(problem.path)} ${problem.message}`);
  };

  /** Changes many cells as one step; all of them or none. */
  const changeCells = (label: string, recipe: (draft: Design) => Taken): void => {
    let refused: string | undefined;
    const next = produce(design, (draft) => {
      const taken = recipe(draft);
      if (!taken.ok) refused = taken.message;
    });
    if (refused === undefined) takeOver(label, next);
    else tell(`Nothing was changed. ${refused}`);
  };

  const fillDown = (): void => {
    const source = range.top === range.bottom ? range.top - 1 : range.top;
    const target = { ...range, top: source + 1 };
    const textOf = (column: Column): string | undefined => {
      const from = rows
        .slice(range.top === range.bottom ? 0 : range.top, source + 1)
        .findLast((row) => isTypable(column, row) && row.kind === rows[range.bottom]?.kind);
      return from === undefined || column.key === 'name' ? undefined : column.show(from);
    };
    changeCells('Fill down', (draft) => fillRange(draft, rows, columns, target, textOf));
  };

  const clear = (): void =>
    changeCells(isOneCell(range) ? 'Empty the cell' : 'Empty the cells', (draft) =>
      fillRange(draft, rows, columns, range, (column) =>
        column.key === 'name' && !isOneCell(range) ? undefined : '',
      ),
    );

  const run = (command: RowCommand): void => {
    if (!canEdit) return;
    if (command === 'add-circuit') {
      change('Add a circuit', (draft) => addCircuitAfter(draft, here, newCircuit(draft)), settleSurvey);
      const last = rows.findLastIndex((row) => row.circuit.id === here?.circuit.id);
      goTo({ row: last + 1, column: 0 });
      return;
    }
    if (here === undefined) return;
    const chosen = rows.slice(range.top, range.bottom + 1);
    switch (command) {
      case 'add-item':
        change('Add an item', (draft) => addItemAfter(draft, here, newItem()), settleSurvey);
        goTo({ row: place.row + 1, column: 0 });
        break;
      case 'duplicate':
        change('Duplicate the row', (draft) => duplicateRow(draft, here));
        break;
      case 'delete':
        change(chosen.length === 1 ? 'Delete the row' : `Delete ${chosen.length} rows`, (draft) =>
          chosen.forEach((row) => deleteRow(draft, row)),
        );
        break;
      case 'fill-down':
        fillDown();
        break;
      case 'clear':
        clear();
    }
  };

  const onCopy = (event: ClipboardEvent): void => {
    if (startText !== undefined) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', writeBlock(rows, columns, range));
  };

  const onPaste = (event: ClipboardEvent): void => {
    if (startText !== undefined || !canEdit || here === undefined) return;
    event.preventDefault();
    const block = readBlock(event.clipboardData.getData('text/plain'));
    if (hasHeadings(block)) {
      onHeadedBlock(block);
      return;
    }
    const only = block.length === 1 && block[0]?.length === 1 ? block[0][0] : undefined;
    if (only !== undefined && !isOneCell(range)) {
      changeCells('Paste into the selection', (draft) =>
        fillRange(draft, rows, columns, range, (column) => (column.key === 'name' ? undefined : only)),
      );
      return;
    }
    const from = { row: range.top, column: range.left };
    const pasted = pasteBlock(design, rows, columns, from, block);
    if (!pasted.ok) {
      tell(pasted.message);
      return;
    }
    takeOver(`Paste ${counted(pasted.lines, 'line')}`, pasted.design);
  };

  const onKeyDown = (event: KeyboardEvent): void => {
    if (startText !== undefined) return;
    const command = commandOf(event, place, size);
    if (command === undefined) return;
    event.preventDefault();
    if (command.kind === 'move') goTo(command.to, command.extends);
    else if (command.kind === 'edit') edit(place, command.text);
    else if (command.kind === 'select-all')
      select({ row: 0, column: 0 }, { row: size.row - 1, column: size.column - 1 });
    else run(command.kind);
  };

  const onDragOver = useCallback((to: Place): void => goTo(to, true), [goTo]);

  return {
    rows,
    columns,
    place,
    range,
    here,
    startText,
    goTo,
    onDragOver,
    edit,
    onDone,
    run,
    onCopy,
    onPaste,
    onKeyDown,
  };
}
