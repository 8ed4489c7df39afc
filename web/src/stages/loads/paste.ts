import type { Circuit, Design } from '@bastion/core';
import { produce } from 'immer';
import Papa from 'papaparse';
import { applies, COLUMNS, type Row, type Taken } from './columns.ts';
import type { Place } from './gridKeys.ts';
import { newItem, targetOf } from './rowEdits.ts';

/** More lines than a survey has, fewer than would stop the page. */
const MOST_LINES = 2000;

type Pasted =
  | { readonly ok: true; readonly design: Design; readonly lines: number }
  | { readonly ok: false; readonly message: string };

/** The cells of a block as a spreadsheet puts it on the clipboard: tabs between cells, quotes where a cell needs them. */
export function readBlock(text: string): string[][] {
  return Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data;
}

/** Lays one line of cells over a row. A cell that has nothing to say on this kind of row must be empty. */
function takeLine(draft: Design, row: Row, cells: readonly string[], fromColumn: number): Taken {
  const target = targetOf(draft, row);
  for (const [offset, text] of cells.entries()) {
    const column = COLUMNS[fromColumn + offset];
    if (column === undefined || target === undefined) break;
    if (!applies(column, row)) {
      if (text.trim() === '') continue;
      const kind = row.kind === 'circuit' ? 'a circuit' : 'an item';
      return { ok: false, message: `${kind} has no "${column.title}" to take "${text.trim()}"` };
    }
    if (column.key === 'name' && text.trim() === '') continue;
    const taken = column.take(target, text);
    if (!taken.ok) return { ok: false, message: `${column.title}: ${taken.message}` };
  }
  return { ok: true };
}

/**
 * Lays a block of cells over the table from a cell on. Lines past the last row become new items of its circuit. All of the
 * block is taken over or none of it; the message names the line that could not be.
 */
export function pasteBlock(
  design: Design,
  rows: readonly Row[],
  place: Place,
  block: readonly (readonly string[])[],
): Pasted {
  if (block.length > MOST_LINES)
    return { ok: false, message: `Nothing was pasted: ${block.length} lines are more than ${MOST_LINES}.` };
  let refused: string | undefined;
  const next = produce(design, (draft) => {
    for (const [offset, cells] of block.entries()) {
      const row = rows[place.row + offset] ?? addedRow(draft, rows);
      if (row === undefined) return;
      const taken = takeLine(draft, row, cells, place.column);
      if (!taken.ok) {
        refused = `Nothing was pasted. Line ${offset + 1}: ${taken.message}`;
        return;
      }
    }
  });
  return refused === undefined
    ? { ok: true, design: next, lines: block.length }
    : { ok: false, message: refused };
}

/** A new item at the end of the last circuit, as a row. */
function addedRow(draft: Design, rows: readonly Row[]): Row | undefined {
  const last = rows.at(-1);
  const circuit: Circuit | undefined = draft.circuits.find((one) => one.id === last?.circuit.id);
  if (circuit === undefined) return undefined;
  const item = newItem();
  circuit.items.push(item);
  return { kind: 'item', circuit, item };
}
