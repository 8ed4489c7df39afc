import { counted, formatPath, libraryItem } from '@bastion/core';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { type ClipboardEvent, Fragment, useMemo, useRef, useState } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';
import type { Column } from './columns.ts';
import { expectedVa } from './expectedVa.ts';
import { hasHeadings, pasteCircuits, readBlock } from './paste.ts';
import { rowKey } from './columns.ts';
import { RowView } from './RowView.tsx';
import { newCircuit, settleSurvey } from './rowEdits.ts';
import type { TableView } from './tableView.ts';
import type { useLoadsGrid } from './useLoadsGrid.ts';
import { isOfThePage } from './gridKeys.ts';
import { drawnRows, ROW_PX, useRowWindow } from './useRowWindow.ts';

type SortBy = (key: string) => void;

function SortHead({
  sortKey,
  title,
  unit,
  hint,
  numeric,
  view,
  onSort,
}: {
  readonly sortKey: string;
  readonly title: string;
  readonly unit?: string | undefined;
  readonly hint: string;
  readonly numeric: boolean;
  readonly view: TableView;
  readonly onSort: SortBy;
}) {
  const isSorted = view.sortKey === sortKey;
  const Arrow = view.descending ? ArrowDown : ArrowUp;
  return (
    <th
      role="columnheader"
      scope="col"
      className={numeric ? 'cell-number' : ''}
      aria-sort={isSorted ? (view.descending ? 'descending' : 'ascending') : 'none'}
    >
      <button type="button" title={`${hint} Press to sort.`} onClick={() => onSort(sortKey)}>
        {isSorted && <Arrow size={12} className="mr-0.5 inline" aria-hidden="true" />}
        {title} {unit !== undefined && <span className="font-normal">{unit}</span>}
      </button>
    </th>
  );
}

function Head({
  columns,
  view,
  onSort,
}: {
  readonly columns: readonly Column[];
  readonly view: TableView;
  readonly onSort: SortBy;
}) {
  return (
    <thead>
      <tr role="row">
        {columns.map((column) => (
          <SortHead
            key={column.key}
            sortKey={column.key}
            title={column.title}
            unit={column.unit}
            hint={column.hint}
            numeric={column.numeric}
            view={view}
            onSort={onSort}
          />
        ))}
        <SortHead
          sortKey="expected"
          title="Expected"
          hint="Quantity × W × demand / pf."
          numeric
          view={view}
          onSort={onSort}
        />
        <th role="columnheader" scope="col">
          Share
        </th>
        <th role="columnheader" scope="col">
          Start-up
        </th>
      </tr>
    </thead>
  );
}

/** The last row: a name typed here becomes a circuit, and rows pasted here become circuits each. */
function NewRow({
  columns,
  onHeadedBlock,
}: {
  readonly columns: readonly Column[];
  readonly onHeadedBlock: (block: readonly (readonly string[])[]) => void;
}) {
  const { design } = useOpenJob();
  const change = useJob((store) => store.change);
  const tell = useJob((store) => store.tell);
  const [name, setName] = useState('');
  const add = (): void => {
    if (name.trim() === '') return;
    const called = name.trim().slice(0, 120);
    change(
      `Add ${called}`,
      (draft) => {
        const circuit = newCircuit(draft);
        // A circuit is mostly called by what hangs on it: where the library knows the thing, it is there at once.
        const items = circuit.items.map((item) => ({ ...item, name: called }));
        draft.circuits.push({
          ...circuit,
          name: called,
          ...(libraryItem(called) === undefined ? {} : { items }),
        });
      },
      settleSurvey,
    );
    setName('');
  };
  const onPaste = (event: ClipboardEvent): void => {
    const block = readBlock(event.clipboardData.getData('text/plain'));
    if (block.length < 2 && (block[0]?.length ?? 0) < 2) return;
    event.preventDefault();
    event.stopPropagation();
    if (hasHeadings(block)) {
      onHeadedBlock(block);
      return;
    }
    const pasted = pasteCircuits(design, columns, block);
    if (!pasted.ok) {
      tell(pasted.message);
      return;
    }
    const [problem] = change(
      `Paste ${counted(pasted.lines, 'circuit')}`,
      (draft) => void Object.assign(draft, pasted.design),
      settleSurvey,
    );
    if (problem !== undefined) tell(`Nothing was pasted: ${formatPath(problem.path)} ${problem.message}`);
    else tell(`${counted(pasted.lines, 'circuit')} added.`);
  };
  return (
    <tr role="row">
      <td role="gridcell" colSpan={columns.length + 3} className="row-new">
        <input
          className="w-full"
          aria-label="New circuit"
          data-keeps-focus
          placeholder="New circuit: type its name and press Enter, or paste rows from a spreadsheet here"
          value={name}
          onChange={(event) => setName(event.target.value)}
          onPaste={onPaste}
          onKeyDown={(event) => {
            if (isOfThePage(event)) return;
            event.stopPropagation();
            if (event.key === 'Enter') add();
          }}
          onBlur={add}
        />
      </td>
    </tr>
  );
}

/** Room for rows that are too far away to be drawn. */
function Gap({ rows }: { readonly rows: number }) {
  return (
    <tr aria-hidden="true">
      <td style={{ height: rows * ROW_PX, padding: 0, border: 0 }} />
    </tr>
  );
}

interface LoadsTableProps {
  readonly grid: ReturnType<typeof useLoadsGrid>;
  readonly view: TableView;
  readonly onSort: SortBy;
  readonly onHeadedBlock: (block: readonly (readonly string[])[]) => void;
}

/** The survey table: moves, selects, edits, copies and fills by keyboard and pointer; every change can be undone. */
export function LoadsTable({ grid, view, onSort, onHeadedBlock }: LoadsTableProps) {
  const { design, canEdit } = useOpenJob();
  const { rows, columns, place, range, startText } = grid;
  const box = useRef<HTMLDivElement>(null);
  const drawn = drawnRows(useRowWindow(box, rows.length), rows.length, place.row);
  const last = drawn.at(-1)?.index ?? -1;
  const about = useMemo(
    () => ({ supply: design.site.supply, partitions: design.partitions }),
    [design.site.supply, design.partitions],
  );
  const largestVa = useMemo(() => Math.max(0, ...rows.map((row) => expectedVa(row) ?? 0)), [rows]);
  return (
    <div ref={box} className="sheet max-h-[max(340px,calc(100dvh-300px))] relative overflow-auto">
      <table
        role="grid"
        aria-label="Circuits and items"
        aria-multiselectable="true"
        aria-rowcount={rows.length + 1}
        className="grid-table"
        onKeyDown={grid.onKeyDown}
        onCopy={grid.onCopy}
        onPaste={grid.onPaste}
      >
        <Head columns={columns} view={view} onSort={onSort} />
        <tbody>
          {drawn.map(({ index, gapBefore }) => {
            const row = rows[index];
            if (row === undefined) return null;
            const isIn = index >= range.top && index <= range.bottom;
            return (
              <Fragment key={rowKey(row)}>
                {gapBefore > 0 && <Gap rows={gapBefore} />}
                <RowView
                  row={row}
                  index={index}
                  columns={columns}
                  active={place.row === index ? place.column : undefined}
                  from={isIn ? range.left : undefined}
                  to={isIn ? range.right : undefined}
                  startText={place.row === index ? startText : undefined}
                  about={about}
                  largestVa={largestVa}
                  onActivate={grid.goTo}
                  onDragOver={grid.onDragOver}
                  onEdit={grid.edit}
                  onDone={grid.onDone}
                />
              </Fragment>
            );
          })}
          {rows.length - 1 > last && <Gap rows={rows.length - 1 - last} />}
          {canEdit && <NewRow columns={columns} onHeadedBlock={onHeadedBlock} />}
        </tbody>
      </table>
    </div>
  );
}
