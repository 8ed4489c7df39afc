import { Download, FileSpreadsheet, ListPlus, SlidersHorizontal } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useOpenJob } from '../../state/job.ts';
import { COLUMNS } from './columns.ts';
import { exportLoads } from './exportLoads.ts';
import type { RowCommand } from './gridKeys.ts';
import { FIRST_VIEW, type TableView } from './tableView.ts';

const BUTTONS: readonly { readonly label: string; readonly command: RowCommand; readonly keys: string }[] = [
  { label: 'Add circuit', command: 'add-circuit', keys: 'Alt Shift Enter' },
  { label: 'Add item', command: 'add-item', keys: 'Alt Enter' },
  { label: 'Duplicate row', command: 'duplicate', keys: 'Ctrl Shift D' },
  { label: 'Fill down', command: 'fill-down', keys: 'Ctrl D' },
  { label: 'Delete row', command: 'delete', keys: 'Ctrl Delete' },
];

function ColumnMenu({
  view,
  onView,
}: {
  readonly view: TableView;
  readonly onView: (view: TableView) => void;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <button type="button" className="button">
          <SlidersHorizontal size={15} aria-hidden="true" /> Columns
        </button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="sheet z-20 max-h-[70vh] min-w-52 overflow-y-auto p-1 shadow-md">
          {COLUMNS.filter((column) => column.key !== 'name').map((column) => (
            <DropdownMenu.CheckboxItem
              key={column.key}
              className="flex gap-2 rounded-sm px-2 py-1.5 data-highlighted:bg-chosen"
              checked={!view.hidden.includes(column.key)}
              onCheckedChange={(shown) =>
                onView({
                  ...view,
                  hidden: shown
                    ? view.hidden.filter((key) => key !== column.key)
                    : [...view.hidden, column.key],
                })
              }
              onSelect={(event) => event.preventDefault()}
            >
              <span className="w-4">
                <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
              </span>
              {column.title} <span className="text-quiet">{column.unit}</span>
            </DropdownMenu.CheckboxItem>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function ExportMenu() {
  const { design } = useOpenJob();
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <button type="button" className="button">
          <Download size={15} aria-hidden="true" /> Sheet out
        </button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="sheet z-20 min-w-44 p-1 shadow-md">
          {(['csv', 'xlsx'] as const).map((kind) => (
            <DropdownMenu.Item
              key={kind}
              className="rounded-sm px-2 py-1.5 data-highlighted:bg-chosen"
              onSelect={() => void exportLoads(design, kind)}
            >
              As {kind.toUpperCase()}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

interface LoadsToolbarProps {
  readonly view: TableView;
  readonly onView: (view: TableView) => void;
  readonly onRun: (command: RowCommand) => void;
  readonly onImport: () => void;
  readonly onLibrary: () => void;
}

/** What can be done to the rows, what is shown of them, and the ways in and out. */
export function LoadsToolbar({ view, onView, onRun, onImport, onLibrary }: LoadsToolbarProps) {
  const { canEdit } = useOpenJob();
  const isChanged = view.filter !== '' || view.onlyMissing || view.sortKey !== undefined;
  return (
    <div className="no-print mb-2 flex flex-wrap items-center gap-2">
      {canEdit &&
        BUTTONS.map(({ label, command, keys }) => (
          <button key={command} type="button" className="button" title={keys} onClick={() => onRun(command)}>
            {label}
          </button>
        ))}
      {canEdit && (
        <>
          <button type="button" className="button" onClick={onLibrary}>
            <ListPlus size={15} aria-hidden="true" /> Library
          </button>
          <button type="button" className="button" onClick={onImport}>
            <FileSpreadsheet size={15} aria-hidden="true" /> Sheet in
          </button>
        </>
      )}
      <ExportMenu />
      <ColumnMenu view={view} onView={onView} />
      <input
        className="input w-40!"
        type="search"
        aria-label="Show only names with"
        placeholder="Filter by name"
        value={view.filter}
        onChange={(event) => onView({ ...view, filter: event.target.value })}
      />
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={view.onlyMissing}
          onChange={(event) => onView({ ...view, onlyMissing: event.target.checked })}
        />
        Only what is not known
      </label>
      {isChanged && (
        <button
          type="button"
          className="button button-quiet"
          onClick={() => onView({ ...FIRST_VIEW, hidden: view.hidden })}
        >
          Show all, in board order
        </button>
      )}
    </div>
  );
}
