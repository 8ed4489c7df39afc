import { type Circuit, type Design, guessHeadingRow, guessMapping, type Item } from '@bastion/core';
import { produce } from 'immer';
import Papa from 'papaparse';
import { applies, type Column, isTypable, type Row, type Taken } from './columns.ts';
import type { Place, Range } from './gridKeys.ts';
import { newCircuit, newItem, targetOf } from './rowEdits.ts';

/** More lines than a survey has, fewer than would stop the page. */
const MOST_LINES = 2000;

type Pasted =
  | { readonly ok: true; readonly design: Design; readonly lines: number }
  | { readonly ok: false; readonly message: string };

const tooMany = (lines: number): string => `Nothing was pasted: ${lines} lines are more than ${MOST_LINES}.`;

/** The cells of a block as a spreadsheet puts it on the clipboard: tabs between cells, quotes where a cell needs them. */
export function readBlock(text: string): string[][] {
  return Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' }).data;
}

/** The cells of a range as a spreadsheet takes them from the clipboard. */
export function writeBlock(rows: readonly Row[], columns: readonly Column[], range: Range): string {
  const block = rows
    .slice(range.top, range.bottom + 1)
    .map((row) =>
      columns
        .slice(range.left, range.right + 1)
        .map((column) => (applies(column, row) ? column.show(row) : '')),
    );
  return Papa.unparse(block, { delimiter: '\t', newline: '\n' });
}

/** A block that brings its own headings is laid out by them, not by the place where it is pasted. */
export function hasHeadings(block: readonly (readonly string[])[]): boolean {
  const at = guessHeadingRow(block);
  const mapping = guessMapping(block[at] ?? []);
  const named = mapping.circuit !== undefined || mapping.item !== undefined;
  return block.length > at + 1 && named && Object.keys(mapping).length >= 2;
}

/** Lays one line of cells over a row. A cell that has nothing to say on this kind of row must be empty. */
function takeLine(
  draft: Design,
  row: Row,
  cells: readonly string[],
  columns: readonly Column[],
  fromColumn: number,
): Taken {
  const target = targetOf(draft, row);
  for (const [offset, text] of cells.entries()) {
    const column = columns[fromColumn + offset];
    if (column === undefined || target === undefined) break;
    if (!applies(column, row)) {
      if (text.trim() === '') continue;
      const kind = row.kind === 'circuit' ? 'a circuit' : 'an item';
      return { ok: false, message: `${kind} has no "${column.title}" to take "${text.trim()}"` };
    }
    if (column.isReadOnly || (column.key === 'name' && text.trim() === '')) continue;
    const taken = column.take(target, text, draft);
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
  columns: readonly Column[],
  place: Place,
  block: readonly (readonly string[])[],
): Pasted {
  if (block.length > MOST_LINES) return { ok: false, message: tooMany(block.length) };
  let refused: string | undefined;
  const next = produce(design, (draft) => {
    for (const [offset, cells] of block.entries()) {
      const row = rows[place.row + offset] ?? addedRow(draft, rows);
      if (row === undefined) return;
      const taken = takeLine(draft, row, cells, columns, place.column);
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

/** Puts one value into every cell of a range that can take it. */
export function fillRange(
  draft: Design,
  rows: readonly Row[],
  columns: readonly Column[],
  range: Range,
  textOf: (column: Column) => string | undefined,
): Taken {
  for (const row of rows.slice(range.top, range.bottom + 1)) {
    const target = targetOf(draft, row);
    for (const column of columns.slice(range.left, range.right + 1)) {
      const text = textOf(column);
      if (target === undefined || text === undefined || !isTypable(column, row)) continue;
      const taken = column.take(target, text, draft);
      if (!taken.ok) return { ok: false, message: `${column.title}: ${taken.message}` };
    }
  }
  return { ok: true };
}

/** One line as a circuit with one thing on it, both of the same name. */
function circuitOf(draft: Design, cells: readonly string[], columns: readonly Column[]): Circuit | string {
  const circuit = newCircuit(draft);
  const item: Item = { ...newItem() };
  for (const [at, text] of cells.entries()) {
    const column = columns[at];
    if (column === undefined || column.isReadOnly) continue;
    for (const target of column.on === 'both'
      ? [circuit, item]
      : [column.on === 'circuit' ? circuit : item]) {
      if (column.key !== 'name' && text.trim() === '') continue;
      const taken = column.take(target, text, draft);
      if (!taken.ok) return `${column.title}: ${taken.message}`;
    }
  }
  return { ...circuit, items: [item] };
}

/** Adds a circuit for each line of a block, laid out like the columns of the table. All of them or none. */
export function pasteCircuits(
  design: Design,
  columns: readonly Column[],
  block: readonly (readonly string[])[],
): Pasted {
  if (block.length > MOST_LINES) return { ok: false, message: tooMany(block.length) };
  let refused: string | undefined;
  let lines = 0;
  const next = produce(design, (draft) => {
    for (const [index, cells] of block.entries()) {
      if (cells.every((cell) => cell.trim() === '')) continue;
      const circuit = circuitOf(draft, cells, columns);
      if (typeof circuit === 'string') {
        refused = `Nothing was pasted. Line ${index + 1}: ${circuit}`;
        return;
      }
      draft.circuits.push(circuit);
      lines += 1;
    }
  });
  return refused === undefined ? { ok: true, design: next, lines } : { ok: false, message: refused };
}
