import { useDraggable } from '@dnd-kit/core';
import { type Circuit, formatQuantity, type Line } from '@bastion/core';
import { GripVertical } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { KeyboardEvent } from 'react';
import { circuitVa, type Lane } from './lanes.ts';

interface CircuitChipProps {
  readonly circuit: Circuit;
  readonly lane: Lane;
  readonly lanes: readonly Lane[];
  readonly lines: readonly Line[];
  readonly canEdit: boolean;
  readonly onMove: (circuitId: string, lane: Lane) => void;
  readonly onLine: (circuitId: string, line: Line) => void;
}

/** A circuit on the board: drag it, or press arrows to move it, a digit for its line, Enter for all choices. */
export function CircuitChip({ circuit, lane, lanes, lines, canEdit, onMove, onLine }: CircuitChipProps) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: circuit.id,
    disabled: !canEdit,
  });
  const va = circuitVa(circuit);
  const at = lanes.findIndex((one) => one.id === lane.id);
  const onKeyDown = (event: KeyboardEvent): void => {
    if (!canEdit) return;
    const beside =
      event.key === 'ArrowRight' ? lanes[at + 1] : event.key === 'ArrowLeft' ? lanes[at - 1] : undefined;
    const line = lines[Number(event.key) - 1];
    if (beside !== undefined) onMove(circuit.id, beside);
    else if (line !== undefined) onLine(circuit.id, line);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <DropdownMenu.Root>
      <div
        ref={setNodeRef}
        style={
          transform === null ? undefined : { transform: `translate(${transform.x}px, ${transform.y}px)` }
        }
        className={`flex max-w-full items-center rounded-sm border border-edge bg-sheet ${isDragging ? 'relative z-10 shadow-lg' : ''}`}
      >
        {canEdit && (
          <span {...listeners} className="cursor-grab touch-none py-1 pl-1 text-quiet" aria-hidden="true">
            <GripVertical size={14} />
          </span>
        )}
        <DropdownMenu.Trigger asChild disabled={!canEdit}>
          <button
            type="button"
            id={`chip-${circuit.id}`}
            data-field={`circuits/${circuit.id}/partitionId`}
            className="condensed flex min-w-0 items-center gap-2 px-1.5 py-1 text-left"
            aria-label={`${circuit.name}, ${circuit.lines?.join(' and ') ?? 'line not known'}, ${va === undefined ? 'load not known' : formatQuantity(va, 'VA')}, on ${lane.name}`}
            aria-keyshortcuts="ArrowLeft ArrowRight"
            onKeyDown={onKeyDown}
          >
            <span className="truncate">{circuit.name}</span>
            {(circuit.lines === undefined || circuit.lines.length > 1) && (
              <span className={circuit.lines === undefined ? 'text-unknown' : 'text-quiet'}>
                {circuit.lines?.join('+') ?? 'line?'}
              </span>
            )}
            <span className={`whitespace-nowrap ${va === undefined ? 'text-unknown' : 'text-quiet'}`}>
              {va === undefined ? 'not known' : formatQuantity(va, 'VA')}
            </span>
          </button>
        </DropdownMenu.Trigger>
      </div>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="sheet z-20 min-w-44 p-1 shadow-md" align="start">
          <DropdownMenu.Label className="px-2 py-1 text-quiet">Move to</DropdownMenu.Label>
          {lanes
            .filter((one) => one.id !== lane.id)
            .map((one) => (
              <DropdownMenu.Item
                key={one.id ?? 'undecided'}
                className="rounded-sm px-2 py-1.5 data-highlighted:bg-chosen"
                onSelect={() => onMove(circuit.id, one)}
              >
                {one.name}
              </DropdownMenu.Item>
            ))}
          {lines.length > 1 && (circuit.lines ?? []).length < 2 && (
            <>
              <DropdownMenu.Label className="px-2 py-1 text-quiet">Put on line</DropdownMenu.Label>
              {lines
                .filter((line) => circuit.lines?.[0] !== line)
                .map((line) => (
                  <DropdownMenu.Item
                    key={line}
                    className="rounded-sm px-2 py-1.5 data-highlighted:bg-chosen"
                    onSelect={() => onLine(circuit.id, line)}
                  >
                    {line}
                  </DropdownMenu.Item>
                ))}
            </>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
