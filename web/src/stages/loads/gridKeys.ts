/** A cell by its place on the screen. */
export interface Place {
  readonly row: number;
  readonly column: number;
}

/** What a key asks of the table. */
export type GridCommand =
  | { readonly kind: 'move'; readonly to: Place; readonly extends: boolean }
  | { readonly kind: 'edit'; readonly text: string | undefined }
  | { readonly kind: RowCommand | 'select-all' };

/** What is done to the rows of the selection. */
export type RowCommand = 'clear' | 'add-item' | 'add-circuit' | 'duplicate' | 'delete' | 'fill-down';

/** The part of a keyboard event that matters here. */
export interface KeyPress {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
  readonly shiftKey: boolean;
}

/** Keys of the whole page, which no field keeps for itself: a stage, and the palette. */
export const isOfThePage = ({ key, altKey, ctrlKey, metaKey }: KeyPress): boolean =>
  (altKey && !ctrlKey && /^[1-9]$/.test(key)) || ((ctrlKey || metaKey) && key.toLowerCase() === 'k');

/** How far a page is. */
const PAGE_ROWS = 15;

/** The place nearest to the wanted one that is in the table. */
export function within(place: Place, size: Place): Place {
  const into = (value: number, count: number): number => Math.min(Math.max(value, 0), Math.max(count - 1, 0));
  return { row: into(place.row, size.row), column: into(place.column, size.column) };
}

function moveOf(
  { key, ctrlKey, shiftKey }: KeyPress,
  { row, column }: Place,
  size: Place,
): Place | undefined {
  switch (key) {
    case 'ArrowUp':
      return { row: row - 1, column };
    case 'ArrowDown':
      return { row: row + 1, column };
    case 'ArrowLeft':
      return { row, column: column - 1 };
    case 'ArrowRight':
      return { row, column: column + 1 };
    case 'Tab': {
      // Off the end of the table the key does what it does elsewhere: it leaves.
      const next = column + (shiftKey ? -1 : 1);
      return next < 0 || next >= size.column ? undefined : { row, column: next };
    }
    case 'Home':
      return { row: ctrlKey ? 0 : row, column: 0 };
    case 'End':
      return { row: ctrlKey ? size.row - 1 : row, column: size.column - 1 };
    case 'PageUp':
      return { row: row - PAGE_ROWS, column };
    case 'PageDown':
      return { row: row + PAGE_ROWS, column };
    default:
      return undefined;
  }
}

/** What a key asks of the table when a cell, not an editor, has the keyboard. Undefined: nothing of ours. */
export function commandOf(press: KeyPress, place: Place, size: Place): GridCommand | undefined {
  const { key, altKey, shiftKey } = press;
  if (isOfThePage(press)) return undefined;
  const control = press.ctrlKey || press.metaKey;
  if (altKey && key === 'Enter') return { kind: shiftKey ? 'add-circuit' : 'add-item' };
  if (control && key.toLowerCase() === 'd') return { kind: shiftKey ? 'duplicate' : 'fill-down' };
  if (control && key.toLowerCase() === 'a') return { kind: 'select-all' };
  if (control && key === 'Delete') return { kind: 'delete' };
  const to = moveOf(press, place, size);
  if (to !== undefined) return { kind: 'move', to: within(to, size), extends: shiftKey && key !== 'Tab' };
  if (control || altKey) return undefined;
  if (key === 'Delete' || key === 'Backspace') return { kind: 'clear' };
  if (key === 'Enter' || key === 'F2') return { kind: 'edit', text: undefined };
  return key.length === 1 ? { kind: 'edit', text: key } : undefined;
}

/** A block of cells from corner to corner, both included. */
export interface Range {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

export function rangeBetween(a: Place, b: Place): Range {
  return {
    top: Math.min(a.row, b.row),
    bottom: Math.max(a.row, b.row),
    left: Math.min(a.column, b.column),
    right: Math.max(a.column, b.column),
  };
}

export const isOneCell = ({ top, bottom, left, right }: Range): boolean => top === bottom && left === right;
