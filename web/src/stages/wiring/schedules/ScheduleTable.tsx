import type { Schedule, ScheduleRow } from '@bastion/core';
import {
  type ColumnDef,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type Header,
  type SortingState,
  useReactTable,
  type VisibilityState,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { type ReactNode, useCallback, useMemo, useState } from 'react';
import { usePrinting } from '../../../ui/usePrinting.ts';
import { columnWidths } from './columnWidths.ts';
import { ScheduleRowView } from './ScheduleRowView.tsx';
import '../wiring.css';

/** Up to so many rows all are drawn; beyond, those near what is seen. On paper there are all of them. */
const DRAW_ALL = 60;
const USUAL_ROW_PX = 27;

interface ScheduleTableProps {
  readonly schedule: Schedule;
  readonly filter: string;
  readonly hidden: VisibilityState;
  /** Rows about these parts alone, where any is. */
  readonly chosen: ReadonlySet<string>;
  readonly onPick?: (partIds: readonly string[]) => void;
  readonly openId?: string | undefined;
  readonly onOpen?: (id: string | undefined) => void;
  readonly detail?: (row: ScheduleRow) => ReactNode;
  readonly isWhole?: boolean;
}

const RANK = { over: 0, tight: 1, unknown: 2, within: 3 } as const;

function columnsOf(schedule: Schedule): ColumnDef<ScheduleRow>[] {
  const hasState = schedule.rows.some(({ state }) => state !== undefined);
  const state: ColumnDef<ScheduleRow> = {
    id: 'state',
    header: 'State',
    accessorFn: (row) => RANK[row.state ?? 'within'],
    enableGlobalFilter: false,
  };
  return [
    ...(hasState ? [state] : []),
    ...schedule.columns.map(({ key, title, unit }): ColumnDef<ScheduleRow> => ({
      id: key,
      header: unit === undefined ? title : `${title}, ${unit}`,
      accessorFn: (row) => row.cells[key] ?? undefined,
      sortingFn: 'alphanumeric',
      sortUndefined: 'last',
    })),
  ];
}

interface HeadProps {
  readonly header: Header<ScheduleRow, unknown>;
  /** Figures stand on the right, and so does what is above them. */
  readonly isOfFigures: boolean;
}

function Head({ header: { column }, isOfFigures }: HeadProps) {
  const sorted = column.getIsSorted();
  const Arrow = sorted === 'desc' ? ArrowDown : ArrowUp;
  return (
    <th
      scope="col"
      className={`font-normal ${isOfFigures ? 'text-right' : ''}`}
      aria-sort={sorted === false ? 'none' : sorted === 'asc' ? 'ascending' : 'descending'}
    >
      <button
        type="button"
        className={`inline-flex items-center gap-1 underline-offset-2 hover:underline ${isOfFigures ? 'text-right' : 'text-left'}`}
        onClick={column.getToggleSortingHandler()}
      >
        {String(column.columnDef.header)}
        {sorted !== false && <Arrow size={12} aria-hidden="true" />}
      </button>
    </th>
  );
}

const Gap = ({ heightPx }: { readonly heightPx: number }) =>
  heightPx > 0 && (
    <tbody aria-hidden="true">
      <tr>
        <td style={{ height: heightPx, padding: 0 }} />
      </tr>
    </tbody>
  );

interface BodyProps {
  readonly rows: readonly ScheduleRow[];
  readonly columns: readonly string[];
  readonly openId: string | undefined;
  readonly onOpen: ((row: ScheduleRow, isOpen: boolean) => void) | undefined;
  readonly detail: ((row: ScheduleRow) => ReactNode) | undefined;
}

const AllRows = ({ rows, openId, ...props }: BodyProps) =>
  rows.map((row, index) => (
    <ScheduleRowView key={row.id} row={row} index={index} isOpen={row.id === openId} {...props} />
  ));

/** The rows near what is seen of a long schedule. */
function RowsInSight({ rows, openId, box, ...props }: BodyProps & { readonly box: HTMLElement }) {
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are called in this component alone
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box,
    estimateSize: () => USUAL_ROW_PX,
    getItemKey: (index) => rows[index]?.id ?? index,
    overscan: 10,
  });
  const items = virtual.getVirtualItems();
  return (
    <>
      <Gap heightPx={items[0]?.start ?? 0} />
      {items.map(({ index }) => {
        const row = rows[index];
        return (
          row !== undefined && (
            <ScheduleRowView
              key={row.id}
              row={row}
              index={index}
              bodyRef={virtual.measureElement}
              isOpen={row.id === openId}
              {...props}
            />
          )
        );
      })}
      <Gap heightPx={virtual.getTotalSize() - (items.at(-1)?.end ?? 0)} />
    </>
  );
}

/** One schedule: sorted by a heading, filtered by text and by what is picked on the drawing. Rows and drawing light each other. */
export function ScheduleTable({
  schedule,
  filter,
  hidden,
  chosen,
  onPick,
  openId,
  onOpen,
  detail,
  isWhole = false,
}: ScheduleTableProps) {
  const [sorting, setSorting] = useState<SortingState>([]);
  // The element itself, not a reference to it: the rows are drawn before a reference around them is set, and would find none.
  const [box, setBox] = useState<HTMLDivElement | null>(null);
  const isPrinting = usePrinting();
  const columns = useMemo(() => columnsOf(schedule), [schedule]);
  const data = useMemo(() => {
    const some = schedule.rows.filter(({ partIds }) => partIds.some((id) => chosen.has(id)));
    return some.length > 0 ? some : [...schedule.rows];
  }, [schedule, chosen]);
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are called in this component alone
  const table = useReactTable({
    data,
    columns,
    state: { sorting, globalFilter: filter, columnVisibility: hidden },
    onSortingChange: setSorting,
    getRowId: (row) => row.id,
    globalFilterFn: 'includesString',
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const found = table.getRowModel().rows;
  const rows = useMemo(() => found.map(({ original }) => original), [found]);
  const shownKeys = table.getVisibleLeafColumns().map(({ id }) => id);
  const joined = shownKeys.join(' ');
  const keys = useMemo(() => joined.split(' '), [joined]);
  const widths = useMemo(() => columnWidths(schedule, keys), [schedule, keys]);
  const open = useCallback(
    (row: ScheduleRow, isOpen: boolean): void => {
      onOpen?.(isOpen ? row.id : undefined);
      if (isOpen) onPick?.(row.partIds);
    },
    [onOpen, onPick],
  );
  if (schedule.rows.length === 0) return null;
  const isLong = !isWhole && !isPrinting && rows.length > DRAW_ALL;
  const body = { rows, columns: keys, openId, detail, onOpen: detail === undefined ? undefined : open };
  return (
    <>
      <div
        ref={setBox}
        className={`@container relative overflow-x-auto ${isLong ? 'max-h-[max(340px,70dvh)] overflow-y-auto' : ''}`}
        tabIndex={0}
        role="region"
        aria-label={schedule.title}
      >
        <table
          className={`schedule w-full text-[13px] ${isLong ? 'is-long' : ''}`}
          aria-rowcount={rows.length + 1}
        >
          {isLong && (
            <colgroup>
              {detail !== undefined && <col style={{ width: 34 }} />}
              {widths.map((widthCh, at) => (
                <col key={keys[at]} style={{ width: `calc(${widthCh}ch + 10px)` }} />
              ))}
            </colgroup>
          )}
          <thead>
            {table.getHeaderGroups().map((group) => (
              <tr key={group.id} className="text-left text-quiet">
                {detail !== undefined && <th className="no-print" aria-label="Open" />}
                {group.headers.map((header) => (
                  <Head
                    key={header.id}
                    header={header}
                    isOfFigures={rows.some(({ cells }) => typeof cells[header.column.id] === 'number')}
                  />
                ))}
              </tr>
            ))}
          </thead>
          {!isLong ? <AllRows {...body} /> : box !== null && <RowsInSight {...body} box={box} />}
        </table>
        {rows.length === 0 && <p className="text-quiet">Nothing in this schedule holds “{filter}”.</p>}
      </div>
      {isLong && <p className="text-[13px] text-quiet">{rows.length} rows</p>}
    </>
  );
}
