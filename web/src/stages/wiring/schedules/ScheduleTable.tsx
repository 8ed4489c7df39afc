import { cellText, type Schedule, type ScheduleCell, type ScheduleRow } from '@bastion/core';
import {
  type ColumnDef,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
  type VisibilityState,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp, ChevronDown, ChevronRight } from 'lucide-react';
import { Fragment, type ReactNode, useMemo, useState } from 'react';
import { useLight } from '../../../state/light.ts';
import { StateMark } from '../../../ui/StateMark.tsx';
import '../wiring.css';

/** More rows than anybody reads at once: beyond them, filter. On paper and in a sheet there are all of them. */
const SHOWN = 300;

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

/** Short texts stay on one line, so that rows stay low; figures stand under each other. */
const SHORT = 26;

const cellClass = (cell: ScheduleCell | undefined): string =>
  typeof cell === 'number'
    ? 'text-right tabular-nums'
    : cell === undefined || cell === null || (typeof cell === 'string' && cell.length <= SHORT)
      ? 'whitespace-nowrap'
      : 'min-w-40';

const RANK = { over: 0, tight: 1, unknown: 2, within: 3 } as const;

function columnsOf(schedule: Schedule): ColumnDef<ScheduleRow>[] {
  const hasState = schedule.rows.some(({ state }) => state !== undefined);
  const state: ColumnDef<ScheduleRow> = {
    id: 'state',
    header: 'State',
    accessorFn: (row) => RANK[row.state ?? 'within'],
    cell: ({ row }) =>
      row.original.state === undefined ? '' : <StateMark state={row.original.state} silent />,
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
      cell: ({ row }) => {
        const cell = row.original.cells[key];
        return cell === null ? <span className="text-unknown">not known</span> : cellText(cell);
      },
    })),
  ];
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
  const { litPart, lightPart } = useLight();
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
  const rows = table.getRowModel().rows;
  const shown = isWhole ? rows : rows.slice(0, SHOWN);
  if (schedule.rows.length === 0) return null;
  return (
    <div
      className="@container relative overflow-x-auto"
      tabIndex={0}
      role="region"
      aria-label={schedule.title}
    >
      <table className="schedule w-full text-[13px]">
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} className="text-left text-quiet">
              {detail !== undefined && <th className="no-print" aria-label="Open" />}
              {group.headers.map(({ id, column }) => {
                const sorted = column.getIsSorted();
                const Arrow = sorted === 'desc' ? ArrowDown : ArrowUp;
                return (
                  <th
                    key={id}
                    scope="col"
                    className="font-normal"
                    aria-sort={sorted === false ? 'none' : sorted === 'asc' ? 'ascending' : 'descending'}
                  >
                    <button
                      type="button"
                      className="flex items-center gap-1 text-left underline-offset-2 hover:underline"
                      onClick={column.getToggleSortingHandler()}
                    >
                      {String(column.columnDef.header)}
                      {sorted !== false && <Arrow size={12} aria-hidden="true" />}
                    </button>
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        <tbody>
          {shown.map((row) => {
            const { partIds } = row.original;
            const isOpen = row.id === openId;
            const isLit = litPart !== undefined && partIds.includes(litPart);
            return (
              <Fragment key={row.id}>
                <tr
                  className={`border-t border-rule align-top ${isLit || isOpen ? 'bg-chosen' : ''}`}
                  onPointerEnter={() => partIds[0] !== undefined && lightPart(partIds[0])}
                  onPointerLeave={() => lightPart(undefined)}
                >
                  {detail !== undefined && (
                    <td className="no-print">
                      <button
                        type="button"
                        className="button button-quiet px-1!"
                        aria-expanded={isOpen}
                        aria-label={`Working of ${cellText(row.original.cells.cable)}`}
                        onClick={() => {
                          onOpen?.(isOpen ? undefined : row.id);
                          if (!isOpen) onPick?.(partIds);
                        }}
                      >
                        {isOpen ? <ChevronDown size={15} /> : <ChevronRight size={15} />}
                      </button>
                    </td>
                  )}
                  {row.getVisibleCells().map((cell) => (
                    <td key={cell.id} className={cellClass(row.original.cells[cell.column.id])}>
                      {flexRender(cell.column.columnDef.cell, cell.getContext())}
                    </td>
                  ))}
                </tr>
                {isOpen && detail !== undefined && (
                  <tr>
                    <td />
                    <td colSpan={row.getVisibleCells().length} className="pb-2">
                      {detail(row.original)}
                    </td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </table>
      {rows.length === 0 && <p className="text-quiet">Nothing in this schedule holds “{filter}”.</p>}
      {rows.length > shown.length && (
        <p className="mt-1 text-quiet">
          The first {shown.length} of {rows.length}. Filter, or pick a part on the drawing, to see others.
        </p>
      )}
    </div>
  );
}
