import { useDraggable } from '@dnd-kit/core';
import { Check, GripVertical } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { type KeyboardEvent, memo, type MouseEvent } from 'react';
import { useLight } from '../../state/light.ts';
import { type Circuit, circuitVa, formatNumber, formatQuantity, type Line } from '@bastion/core';
import { type LaneName } from './lanes.ts';

export interface ChipActions {
  readonly onMove: (circuitId: string, laneId: string | undefined) => void;
  /** Moves to the lane so many places on. */
  readonly onPush: (circuitId: string, by: 1 | -1) => void;
  readonly onLine: (circuitId: string, line: Line) => void;
  readonly onChoose: (circuitId: string) => void;
}

interface CircuitChipProps {
  readonly circuit: Circuit;
  readonly laneName: string;
  readonly laneId: string | undefined;
  readonly lanes: readonly LaneName[];
  readonly lines: readonly Line[];
  readonly canEdit: boolean;
  readonly isChosen: boolean;
  readonly proposed: string | undefined;
  readonly actions: ChipActions;
}

function ChipMenu({ circuit, laneId, lanes, lines, actions }: CircuitChipProps) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content className="sheet z-20 min-w-44 p-1 shadow-md" align="start">
        <DropdownMenu.Label className="px-2 py-1 text-quiet">Move to</DropdownMenu.Label>
        {lanes
          .filter((one) => one.id !== laneId)
          .map((one) => (
            <DropdownMenu.Item
              key={one.id ?? 'undecided'}
              className="rounded-sm px-2 py-1.5 data-highlighted:bg-chosen"
              onSelect={() => actions.onMove(circuit.id, one.id)}
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
                  onSelect={() => actions.onLine(circuit.id, line)}
                >
                  {line}
                </DropdownMenu.Item>
              ))}
          </>
        )}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  );
}

/** A circuit on the board: drag it, arrows move it, a digit gives its line, Space chooses it with others, Enter opens all. */
export const CircuitChip = memo(function CircuitChip(props: CircuitChipProps) {
  const { circuit, laneName, lines, canEdit, isChosen, proposed, actions } = props;
  const isLit = useLight((store) => store.lit === circuit.id);
  const light = useLight((store) => store.light);
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: circuit.id,
    disabled: !canEdit,
  });
  const va = circuitVa(circuit);
  const onKeyDown = (event: KeyboardEvent): void => {
    if (!canEdit) return;
    // With Alt a number is a stage.
    const line = event.altKey ? undefined : lines[Number(event.key) - 1];
    if (event.key === 'ArrowRight') actions.onPush(circuit.id, 1);
    else if (event.key === 'ArrowLeft') actions.onPush(circuit.id, -1);
    else if (event.key === ' ') actions.onChoose(circuit.id);
    else if (line !== undefined) actions.onLine(circuit.id, line);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  /** With Ctrl or Shift a press chooses, as in a list; without, it opens the menu. */
  const onPress = (event: MouseEvent): void => {
    if (!event.ctrlKey && !event.metaKey && !event.shiftKey) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.type === 'pointerdown' && canEdit) actions.onChoose(circuit.id);
  };
  const delay =
    (circuit.startDelayS ?? 0) > 0 ? `, closes after ${formatNumber(circuit.startDelayS ?? 0)} s` : '';
  return (
    <DropdownMenu.Root modal={false}>
      <div
        ref={setNodeRef}
        data-chosen={isChosen}
        data-lit={isLit}
        style={
          transform === null ? undefined : { transform: `translate(${transform.x}px, ${transform.y}px)` }
        }
        className={`chip flex max-w-full items-center rounded-sm border border-edge bg-sheet ${isDragging ? 'relative z-10 shadow-lg' : ''}`}
        onMouseEnter={() => light(circuit.id)}
        onMouseLeave={() => light(undefined)}
      >
        {canEdit && (
          <span {...listeners} className="cursor-grab touch-none py-1 pl-1 text-quiet" aria-hidden="true">
            {isChosen ? <Check size={14} /> : <GripVertical size={14} />}
          </span>
        )}
        <DropdownMenu.Trigger asChild disabled={!canEdit}>
          <button
            type="button"
            id={`chip-${circuit.id}`}
            data-field={`circuits/${circuit.id}/partitionId`}
            className="condensed flex min-w-0 items-center gap-2 px-1.5 py-1 text-left"
            aria-label={`${circuit.name}, ${circuit.lines?.join(' and ') ?? 'line not known'}, ${va === undefined ? 'load not known' : formatQuantity(va, 'VA')}, on ${laneName}${delay}${isChosen ? ', chosen' : ''}${proposed === undefined ? '' : `, proposed: ${proposed}`}`}
            aria-keyshortcuts="ArrowLeft ArrowRight Space"
            onKeyDown={onKeyDown}
            onPointerDownCapture={onPress}
            onFocus={() => light(circuit.id)}
            onBlur={() => light(undefined)}
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
            {delay !== '' && (
              <span className="whitespace-nowrap text-quiet">
                +{formatNumber(circuit.startDelayS ?? 0)} s
              </span>
            )}
            {proposed !== undefined && <span className="whitespace-nowrap text-touch">→ {proposed}</span>}
          </button>
        </DropdownMenu.Trigger>
      </div>
      <ChipMenu {...props} />
    </DropdownMenu.Root>
  );
});
