import { type Design, formatQuantity } from '@bastion/core';
import { memo } from 'react';
import { Cell } from './Cell.tsx';
import { type Column, COLUMNS, type Row } from './columns.ts';
import type { Place } from './gridKeys.ts';

/** Where the keyboard goes when an editor closes. */
export type Then = 'stay' | 'down' | 'right' | 'left';

/** Running VA of a row at the expected peak; undefined while something is missing. */
export function expectedVa(row: Row): number | undefined {
  const items = row.kind === 'item' ? [row.item] : row.circuit.items;
  if (items.length === 0) return undefined;
  let sum = 0;
  for (const { quantity, runningW, powerFactor, demandFactor } of items) {
    if (
      quantity === undefined ||
      runningW === undefined ||
      powerFactor === undefined ||
      demandFactor === undefined
    ) {
      return undefined;
    }
    sum += (quantity * runningW * demandFactor) / powerFactor;
  }
  return sum;
}

interface RowViewProps {
  readonly row: Row;
  readonly index: number;
  readonly active: number | undefined;
  readonly startText: string | undefined;
  readonly supply: Design['site']['supply'];
  readonly largestVa: number;
  readonly onActivate: (place: Place) => void;
  readonly onEdit: (place: Place) => void;
  readonly onDone: (row: Row, column: Column, text: string | undefined, then: Then) => void;
}

/** One row of the survey; drawn again only when something of it changes. */
export const RowView = memo(function RowView(props: RowViewProps) {
  const { row, index, active, startText, supply, largestVa, onActivate, onEdit, onDone } = props;
  const va = expectedVa(row);
  return (
    <tr role="row" className={row.kind === 'circuit' ? 'row-circuit' : ''}>
      {COLUMNS.map((column, at) => (
        <Cell
          key={column.key}
          row={row}
          column={column}
          isActive={active === at}
          startText={active === at ? startText : undefined}
          supply={supply}
          onActivate={() => onActivate({ row: index, column: at })}
          onEdit={() => onEdit({ row: index, column: at })}
          onDone={(text, then) => onDone(row, column, text, then)}
        />
      ))}
      <td role="gridcell" aria-readonly="true" className="cell-number">
        {va === undefined ? <span className="text-unknown">not known</span> : formatQuantity(va, 'VA')}
      </td>
      <td role="gridcell" aria-readonly="true" className="w-24" aria-label="Share of the largest circuit">
        {va !== undefined && (
          <div
            className={row.kind === 'circuit' ? 'h-2 bg-ink' : 'h-1.5 bg-edge'}
            style={{ width: `${(100 * va) / Math.max(1, largestVa)}%` }}
          />
        )}
      </td>
    </tr>
  );
});
