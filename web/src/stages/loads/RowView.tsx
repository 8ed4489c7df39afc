import { formatQuantity } from '@bastion/core';
import { memo } from 'react';
import { Cell } from './Cell.tsx';
import type { Column, Row, TableAbout } from './columns.ts';
import { expectedVa } from './expectedVa.ts';
import type { Place } from './gridKeys.ts';
import { StartTrace } from './StartTrace.tsx';

/** Where the keyboard goes when an editor closes. */
export type Then = 'stay' | 'down' | 'right' | 'left';

interface RowViewProps {
  readonly row: Row;
  readonly index: number;
  readonly columns: readonly Column[];
  readonly active: number | undefined;
  /** First and last selected column of this row; both undefined where it is not in the selection. */
  readonly from: number | undefined;
  readonly to: number | undefined;
  readonly startText: string | undefined;
  readonly about: TableAbout;
  readonly largestVa: number;
  readonly onActivate: (place: Place, extend: boolean) => void;
  readonly onDragOver: (place: Place) => void;
  readonly onEdit: (place: Place) => void;
  readonly onDone: (row: Row, column: Column, text: string | undefined, then: Then) => void;
}

/** One row of the survey; drawn again only when something of it changes. */
export const RowView = memo(function RowView(props: RowViewProps) {
  const { row, index, columns, active, from, to, startText, about, largestVa } = props;
  const va = expectedVa(row);
  return (
    <tr role="row" aria-rowindex={index + 2} className={row.kind === 'circuit' ? 'row-circuit' : ''}>
      {columns.map((column, at) => (
        <Cell
          key={column.key}
          row={row}
          column={column}
          isActive={active === at}
          isSelected={from !== undefined && to !== undefined && at >= from && at <= to}
          startText={active === at ? startText : undefined}
          about={about}
          onActivate={(extend) => props.onActivate({ row: index, column: at }, extend)}
          onDragOver={() => props.onDragOver({ row: index, column: at })}
          onEdit={() => props.onEdit({ row: index, column: at })}
          onDone={(text, then) => props.onDone(row, column, text, then)}
        />
      ))}
      <td role="gridcell" aria-readonly="true" className="cell-number">
        {va === undefined ? <span className="text-unknown">not known</span> : formatQuantity(va, 'VA')}
      </td>
      <td role="gridcell" aria-readonly="true" className="w-14" aria-label="Share of the largest circuit">
        {va !== undefined && (
          <div
            className={row.kind === 'circuit' ? 'h-2 bg-ink' : 'h-1.5 bg-edge'}
            style={{ width: `${(100 * va) / Math.max(1, largestVa)}%` }}
          />
        )}
      </td>
      <td role="gridcell" aria-readonly="true">
        {row.kind === 'item' && <StartTrace circuit={row.circuit} item={row.item} />}
      </td>
    </tr>
  );
});
