import { useMemo } from 'react';
import { useOpenJob } from '../../state/job.ts';
import { COLUMNS, rowKey } from './columns.ts';
import type { GridCommand } from './gridKeys.ts';
import { expectedVa, RowView } from './RowView.tsx';
import { useLoadsGrid } from './useLoadsGrid.ts';

const BUTTONS: readonly {
  readonly label: string;
  readonly kind: 'add-circuit' | 'add-item' | 'duplicate' | 'delete';
}[] = [
  { label: 'Add circuit', kind: 'add-circuit' },
  { label: 'Add item', kind: 'add-item' },
  { label: 'Duplicate row', kind: 'duplicate' },
  { label: 'Delete row', kind: 'delete' },
];

function Toolbar({
  onRun,
}: {
  readonly onRun: (command: Exclude<GridCommand, { kind: 'move' | 'edit' }>) => void;
}) {
  return (
    <div className="no-print mb-2 flex flex-wrap gap-2">
      {BUTTONS.map(({ label, kind }) => (
        <button key={kind} type="button" className="button" onClick={() => onRun({ kind })}>
          {label}
        </button>
      ))}
    </div>
  );
}

function Head() {
  return (
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
            {column.title} {column.unit !== undefined && <span className="font-normal">{column.unit}</span>}
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
  );
}

/** The survey table: moves, edits, adds, copies and deletes by keyboard; every change can be undone. */
export function LoadsTable() {
  const { design, canEdit } = useOpenJob();
  const { rows, place, startText, goTo, edit, onDone, run, onPaste, onKeyDown } = useLoadsGrid();
  const largestVa = useMemo(() => Math.max(0, ...rows.map((row) => expectedVa(row) ?? 0)), [rows]);
  return (
    <>
      {canEdit && <Toolbar onRun={run} />}
      <div className="sheet max-h-[calc(100dvh-220px)] overflow-auto print:max-h-none">
        <table
          role="grid"
          aria-label="Circuits and items"
          className="grid-table"
          onKeyDown={onKeyDown}
          onPaste={onPaste}
        >
          <Head />
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
