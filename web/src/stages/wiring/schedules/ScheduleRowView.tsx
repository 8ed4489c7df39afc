import { cellText, type ScheduleCell, type ScheduleRow } from '@bastion/core';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { memo, type ReactNode, type Ref } from 'react';
import { useLight } from '../../../state/light.ts';
import { StateMark } from '../../../ui/StateMark.tsx';

/** Short texts stay on one line, so that rows stay low; figures stand under each other. */
const SHORT = 26;

const cellClass = (cell: ScheduleCell | undefined): string =>
  typeof cell === 'number'
    ? 'text-right tabular-nums'
    : cell === undefined || cell === null || (typeof cell === 'string' && cell.length <= SHORT)
      ? 'whitespace-nowrap'
      : 'min-w-40';

interface RowProps {
  readonly row: ScheduleRow;
  /** Its place among all rows, the first 0: not all of them are drawn. */
  readonly index: number;
  /** Keys of the columns that are shown, in order; the state is one of them where the schedule has states. */
  readonly columns: readonly string[];
  readonly isOpen: boolean;
  readonly onOpen: ((row: ScheduleRow, isOpen: boolean) => void) | undefined;
}

function Cells({ row, columns }: Pick<RowProps, 'row' | 'columns'>) {
  return columns.map((key) => {
    if (key === 'state')
      return (
        <td key={key} className="whitespace-nowrap">
          {row.state !== undefined && <StateMark state={row.state} silent />}
        </td>
      );
    const cell = row.cells[key];
    return (
      <td key={key} className={cellClass(cell)}>
        {cell === null ? <span className="text-unknown">not known</span> : cellText(cell)}
      </td>
    );
  });
}

/** One row. It is drawn again only where it changed: a schedule may have hundreds, and most edits touch one. */
const OneRow = memo(function OneRow({ row, index, columns, isOpen, onOpen }: RowProps) {
  const { partIds } = row;
  const lightPart = useLight((store) => store.lightPart);
  const isLit = useLight(({ litPart }) => litPart !== undefined && partIds.includes(litPart));
  return (
    <tr
      aria-rowindex={index + 2}
      className={`border-t border-rule align-top ${isLit || isOpen ? 'bg-chosen' : ''}`}
      onPointerEnter={() => partIds[0] !== undefined && lightPart(partIds[0])}
      onPointerLeave={() => lightPart(undefined)}
    >
      {onOpen !== undefined && (
        <td className="no-print">
          <button
            type="button"
            className="button button-quiet px-1!"
            aria-expanded={isOpen}
            aria-label={`Working of ${cellText(row.cells.cable)}`}
            onClick={() => onOpen(row, !isOpen)}
          >
            {isOpen ? <ChevronDown size={15} /> : <ChevronRight size={15} />}
          </button>
        </td>
      )}
      <Cells row={row} columns={columns} />
    </tr>
  );
});

/** A row with what it opens into, as one body of the table: it is measured as a whole. */
export function ScheduleRowView({
  detail,
  bodyRef,
  ...props
}: RowProps & {
  readonly detail: ((row: ScheduleRow) => ReactNode) | undefined;
  readonly bodyRef?: Ref<HTMLTableSectionElement>;
}) {
  return (
    <tbody ref={bodyRef} data-index={props.index}>
      <OneRow {...props} />
      {props.isOpen && detail !== undefined && (
        <tr>
          <td />
          <td colSpan={props.columns.length} className="pb-2">
            {detail(props.row)}
          </td>
        </tr>
      )}
    </tbody>
  );
}
