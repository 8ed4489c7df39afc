import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { useIsFirst } from '../../state/firstValues.ts';
import { applies, cellField, type Column, isTypable, type Row, type TableAbout } from './columns.ts';
import { isOfThePage } from './gridKeys.ts';

interface CellProps {
  readonly row: Row;
  readonly column: Column;
  readonly isActive: boolean;
  readonly startText: string | undefined;
  readonly about: TableAbout;
  readonly isSelected: boolean;
  readonly onActivate: (extend: boolean) => void;
  readonly onDragOver: () => void;
  readonly onEdit: () => void;
  readonly onDone: (text: string | undefined, then: 'stay' | 'down' | 'right' | 'left') => void;
}

interface EditorProps extends Pick<CellProps, 'row' | 'column' | 'about' | 'onDone'> {
  readonly startText: string;
}

/** The choice that typed letters mean: the first that begins with them. */
function choiceOf(
  options: readonly { readonly value: string; readonly label: string }[],
  typed: string,
): string | undefined {
  const wanted = typed.toLowerCase();
  if (wanted === '') return undefined;
  return (
    options.find(({ value }) => value.toLowerCase() === wanted) ??
    options.find(
      ({ value, label }) => value.toLowerCase().startsWith(wanted) || label.toLowerCase().startsWith(wanted),
    )
  )?.value;
}

function Editor({ row, column, startText, about, onDone }: EditorProps) {
  const options = column.options?.(about);
  const [text, setText] = useState(() =>
    options === undefined ? startText : (choiceOf(options, startText) ?? column.show(row)),
  );
  /** What has been typed towards a choice. */
  const typed = useRef(options !== undefined && startText !== column.show(row) ? startText : '');
  const box = useRef<HTMLInputElement & HTMLSelectElement>(null);
  const done = useRef(false);
  useEffect(() => {
    box.current?.focus();
    if (box.current instanceof HTMLInputElement && startText === column.show(row)) box.current.select();
  }, [column, row, startText]);
  const finish = (value: string | undefined, then: 'stay' | 'down' | 'right' | 'left'): void => {
    if (done.current) return;
    done.current = true;
    onDone(value, then);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (isOfThePage(event)) return;
    if (event.key === 'Enter') finish(text, 'down');
    else if (event.key === 'Tab') finish(text, event.shiftKey ? 'left' : 'right');
    else if (event.key === 'Escape') finish(undefined, 'stay');
    else if (options !== undefined && event.key.length === 1 && !event.ctrlKey && !event.metaKey) {
      // The letters typed go on from the first one, which opened the cell.
      const longer = typed.current + event.key;
      const found = choiceOf(options, longer) ?? choiceOf(options, event.key);
      typed.current = choiceOf(options, longer) === undefined ? event.key : longer;
      if (found !== undefined) setText(found);
    } else {
      event.stopPropagation();
      return;
    }
    event.preventDefault();
    event.stopPropagation();
  };
  const label = `${column.title} of ${row.kind === 'circuit' ? row.circuit.name : row.item.name}`;
  if (options === undefined) {
    return (
      <input
        ref={box}
        aria-label={label}
        className={column.numeric ? 'text-right' : ''}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => finish(text, 'stay')}
        onKeyDown={onKeyDown}
      />
    );
  }
  return (
    <select
      ref={box}
      aria-label={label}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => finish(text, 'stay')}
      onKeyDown={onKeyDown}
    >
      <option value="">not known</option>
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.label}
        </option>
      ))}
    </select>
  );
}

/** One cell: shows its figure, or an outline where it is not known; becomes an editor in place. */
export function Cell(props: CellProps) {
  const { row, column, isActive, isSelected, startText, about, onActivate, onDragOver, onEdit, onDone } =
    props;
  const box = useRef<HTMLTableCellElement>(null);
  const isEditing = startText !== undefined;
  const isFirst = useIsFirst(cellField(row, column));
  useEffect(() => {
    const holder = document.activeElement;
    // Whoever types one name after the other below the table goes on typing there.
    if (holder instanceof HTMLElement && holder.dataset.keepsFocus !== undefined) return;
    if (isActive && !isEditing && holder !== box.current) box.current?.focus();
  }, [isActive, isEditing]);
  const used = applies(column, row);
  const shown = used ? column.show(row) : '';
  const standIn = used && shown === '' ? (column.standIn?.(row) ?? '') : '';
  const isMissing = used && shown === '' && standIn === '' && column.standIn === undefined;
  const isName = column.key === 'name';
  return (
    <td
      ref={box}
      role={isName ? 'rowheader' : 'gridcell'}
      tabIndex={isActive ? 0 : -1}
      data-field={used ? cellField(row, column) : undefined}
      data-active={isActive}
      data-missing={isMissing && !isEditing}
      data-selected={isSelected}
      aria-selected={isSelected || isActive}
      aria-readonly={!isTypable(column, row)}
      className={`${column.numeric ? 'cell-number' : ''} ${isEditing ? 'cell-editing' : ''} ${isName && row.kind === 'item' ? 'pl-7!' : ''}`}
      onFocus={() => !isActive && onActivate(false)}
      onMouseDown={(event) => {
        if (event.button !== 0 || isEditing) return;
        // Shift would select text across the table; the range shows what is selected.
        if (event.shiftKey) event.preventDefault();
        onActivate(event.shiftKey);
      }}
      onMouseEnter={(event) => event.buttons === 1 && onDragOver()}
      onDoubleClick={onEdit}
    >
      {isEditing ? (
        <Editor row={row} column={column} startText={startText} about={about} onDone={onDone} />
      ) : (
        <>
          {isFirst && shown !== '' && (
            <span
              className="text-quiet"
              title="First value: nobody has looked at it yet. Enter, Enter keeps it."
            >
              ≈<span className="sr-only"> first value</span>{' '}
            </span>
          )}
          {shown}
          {standIn !== '' && (
            <span className="text-quiet italic" title="Figure of the start class">
              {standIn}
            </span>
          )}
          {isMissing && <span className="sr-only">not known</span>}
        </>
      )}
    </td>
  );
}
