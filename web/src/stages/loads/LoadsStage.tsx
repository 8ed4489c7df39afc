import { counted } from '@bastion/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { useJob, useOpenJob } from '../../state/job.ts';
import { COLUMNS } from './columns.ts';
import { ImportDialog, type SheetInHand } from './ImportDialog.tsx';
import { LibraryDialog } from './LibraryDialog.tsx';
import { LoadDuration } from './LoadDuration.tsx';
import { LoadsTable } from './LoadsTable.tsx';
import { LoadsToolbar } from './LoadsToolbar.tsx';
import { RowPanel } from './RowPanel.tsx';
import { newCircuit, settleSurvey } from './rowEdits.ts';
import { FIRST_VIEW, type TableView } from './tableView.ts';
import { useLoadsGrid } from './useLoadsGrid.ts';

/** What to do first. The table below it takes the first name or a pasted block as well. */
function EmptySurvey({ onImport }: { readonly onImport: () => void }) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  return (
    <div className="sheet mb-3 max-w-xl p-6">
      <h2>No circuits yet</h2>
      <p className="mt-2">
        Start with the first circuit of the board: its name, its line, and what hangs on it. A name that the
        library knows brings its usual figures, marked until you have looked at them. Leave what you do not
        know empty; it is shown as unknown and never counted as nothing.
      </p>
      {canEdit && (
        <div className="mt-4 flex flex-wrap gap-2">
          <button
            type="button"
            className="button button-main"
            onClick={() =>
              change('Add a circuit', (draft) => void draft.circuits.push(newCircuit(draft)), settleSurvey)
            }
          >
            Add the first circuit
          </button>
          <button type="button" className="button" onClick={onImport}>
            Bring a CSV or XLSX sheet
          </button>
        </div>
      )}
    </div>
  );
}

/** Extra columns that a link leads to are brought up with it. */
function useShownField(view: TableView): TableView {
  const { hash } = useLocation();
  const wanted = decodeURIComponent(hash).split('/').at(-1);
  const column = COLUMNS.find((one) => one.key === wanted && view.hidden.includes(one.key));
  return column === undefined ? view : { ...view, hidden: view.hidden.filter((key) => key !== column.key) };
}

/** Takes the cell that the address names in hand: in a long table its row may not be drawn yet. */
function useCellFromAddress({ rows, columns, goTo }: ReturnType<typeof useLoadsGrid>): void {
  const { hash, key } = useLocation();
  const handled = useRef('');
  useEffect(() => {
    if (!hash.startsWith('#field=circuits/') && !hash.startsWith('#field=circuits%2F')) return;
    if (handled.current === `${key}${hash}`) return;
    handled.current = `${key}${hash}`;
    const [, circuitId, list, itemId] = decodeURIComponent(hash.slice('#field='.length)).split('/');
    const row = rows.findIndex((one) =>
      list === 'items' && one.kind === 'item'
        ? one.circuit.id === circuitId && one.item.id === itemId
        : list !== 'items' && one.circuit.id === circuitId,
    );
    const field = decodeURIComponent(hash).split('/').at(-1);
    const column = columns.findIndex((one) => one.key === field);
    if (row >= 0) goTo({ row, column: Math.max(0, column) });
  }, [hash, key, rows, columns, goTo]);
}

interface SurveyHeadProps {
  readonly items: number;
  readonly view: TableView;
  readonly onView: (view: TableView) => void;
  readonly grid: ReturnType<typeof useLoadsGrid>;
  readonly onImport: () => void;
  readonly onLibrary: () => void;
}

function SurveyHead({ items, view, onView, grid, onImport, onLibrary }: SurveyHeadProps) {
  const { design } = useOpenJob();
  return (
    <>
      <div className="mb-2 flex flex-wrap items-baseline gap-x-3">
        <h2>Loads</h2>
        <p className="text-quiet">
          {counted(design.circuits.length, 'circuit')}, {counted(items, 'item')}. Enter edits, Delete makes a
          figure unknown, ? lists the keys.
        </p>
      </div>
      <LoadsToolbar view={view} onView={onView} onRun={grid.run} onImport={onImport} onLibrary={onLibrary} />
    </>
  );
}

function Survey({
  onImport,
  onHeadedBlock,
}: {
  readonly onImport: () => void;
  readonly onHeadedBlock: (block: readonly (readonly string[])[]) => void;
}) {
  const { design, canEdit } = useOpenJob();
  const [chosen, setView] = useState(FIRST_VIEW);
  const view = useShownField(chosen);
  const [hasLibrary, setHasLibrary] = useState(false);
  const grid = useLoadsGrid({ view, onHeadedBlock });
  const onSort = useCallback(
    (key: string): void =>
      setView((now) =>
        now.sortKey !== key
          ? { ...now, sortKey: key, descending: key === 'expected' }
          : now.descending === (key === 'expected')
            ? { ...now, descending: !now.descending }
            : { ...now, sortKey: undefined },
      ),
    [],
  );
  useCellFromAddress(grid);
  const items = design.circuits.reduce((sum, circuit) => sum + circuit.items.length, 0);
  const isEmpty = design.circuits.length === 0;
  // The table stays the same one when its first circuit comes: typing goes on where it was.
  return (
    <>
      {isEmpty ? (
        <EmptySurvey onImport={onImport} />
      ) : (
        <SurveyHead
          items={items}
          view={view}
          onView={setView}
          grid={grid}
          onImport={onImport}
          onLibrary={() => setHasLibrary(true)}
        />
      )}
      {(canEdit || !isEmpty) && (
        <LoadsTable grid={grid} view={view} onSort={onSort} onHeadedBlock={onHeadedBlock} />
      )}
      {!isEmpty && (
        <div className="no-print mt-3 grid items-start gap-3 lg:grid-cols-2">
          <LoadDuration />
          <RowPanel row={grid.here} />
        </div>
      )}
      <LibraryDialog isOpen={hasLibrary} here={grid.here} onClose={() => setHasLibrary(false)} />
    </>
  );
}

/** The survey: circuits and what hangs on them, as one table over the whole width. */
export function LoadsStage() {
  const [isImporting, setIsImporting] = useState(false);
  const [pasted, setPasted] = useState<SheetInHand>();
  const onHeadedBlock = (rows: readonly (readonly string[])[]): void => {
    setPasted({ name: 'the clipboard', rows, decimal: undefined });
    setIsImporting(true);
  };
  return (
    <div className="paper-wide">
      <Survey onImport={() => setIsImporting(true)} onHeadedBlock={onHeadedBlock} />
      <ImportDialog
        isOpen={isImporting}
        pasted={pasted}
        onClose={() => {
          setIsImporting(false);
          setPasted(undefined);
        }}
      />
    </div>
  );
}
