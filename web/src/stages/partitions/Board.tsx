import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { analyse, type Analysis, type Design, type Line, SAMPLE_TYPES } from '@bastion/core';
import { memo, useEffect, useMemo, useState } from 'react';
import { useGhost } from '../../state/ghost.ts';
import { useJob, useOpenJob } from '../../state/job.ts';
import type { ChipActions } from './CircuitChip.tsx';
import {
  addPartition,
  addStartCase,
  KIND_NAMES,
  KINDS,
  type Lane,
  laneKey,
  laneNames,
  lanesOf,
  moveCircuits,
  namesOf,
  putOnLine,
} from './lanes.ts';
import { LaneView } from './LaneView.tsx';
import { linesOf, scaleVa, type Segment, tracksOf } from './tracks.ts';
import { useAfterPaint } from '../../ui/useAfterPaint.ts';

/** The circuit that gets the keyboard back once it has been drawn in its new place. */
let wantsFocus: string | undefined;
const refocus = (circuitId: string): void => void (wantsFocus = circuitId);
const giveFocus = (): void => {
  if (wantsFocus !== undefined) document.getElementById(`chip-${wantsFocus}`)?.focus();
  wantsFocus = undefined;
};

/** What a proposal changes of the board: the stretches it would add, and what becomes of each circuit in a word. */
function useGhostBoard(design: Design) {
  const ghost = useGhost((store) => store.ghost);
  return useMemo(() => {
    const words = new Map<string, string>();
    const segments = new Map<string, Map<Line, Segment[]>>();
    if (ghost === undefined) return { words, segments };
    const nameOf = (id: string | undefined): string =>
      ghost.partitions.find((one) => one.id === id)?.name ?? 'not placed';
    for (const circuit of ghost.circuits) {
      const now = design.circuits.find((one) => one.id === circuit.id);
      if (now === undefined) continue;
      const parts = [
        ...(now.partitionId === circuit.partitionId ? [] : [nameOf(circuit.partitionId)]),
        ...(now.lines?.join() === circuit.lines?.join() ? [] : [circuit.lines?.join('+') ?? 'no line']),
        ...((now.startDelayS ?? 0) === (circuit.startDelayS ?? 0) ? [] : [`+${circuit.startDelayS ?? 0} s`]),
      ];
      if (parts.length > 0) words.set(circuit.id, parts.join(', '));
    }
    const analysis = analyse(ghost, SAMPLE_TYPES);
    const lanes = lanesOf(ghost);
    for (const lane of lanes) {
      const byLine = new Map<Line, Segment[]>();
      for (const track of tracksOf(analysis, lane, lanes))
        byLine.set(
          track.line,
          track.segments.filter((one) => words.has(one.circuitId)),
        );
      segments.set(laneKey(lane), byLine);
    }
    return { words, segments };
  }, [ghost, design]);
}

/** Actions that read the design when they are called, so that they stay the same and no chip is drawn again for them. */
function useChipActions(
  chosen: ReadonlySet<string>,
  setChosen: (change: (now: ReadonlySet<string>) => ReadonlySet<string>) => void,
): ChipActions {
  return useMemo(() => {
    /** A chosen circuit takes the others that are chosen with it. */
    const group = (circuitId: string): ReadonlySet<string> =>
      chosen.has(circuitId) ? chosen : new Set([circuitId]);
    const designNow = (): Design | undefined => useJob.getState().job?.design;
    const change = (circuitId: string, words: string, recipe: (draft: Design) => void): void => {
      const design = designNow();
      if (design === undefined) return;
      useJob.getState().change(`${namesOf(design, group(circuitId))} ${words}`, recipe);
      refocus(circuitId);
    };
    const lanesNow = (): Lane[] => {
      const design = designNow();
      return design === undefined ? [] : lanesOf(design);
    };
    const onMove = (circuitId: string, laneId: string | undefined): void => {
      const to = lanesNow().find((lane) => lane.id === laneId)?.name ?? 'not placed';
      change(circuitId, `to ${to}`, (draft) => moveCircuits(draft, group(circuitId), laneId));
    };
    return {
      onMove,
      onPush: (circuitId, by) => {
        const lanes = lanesNow();
        const at = lanes.findIndex((lane) => lane.circuits.some((circuit) => circuit.id === circuitId));
        const beside = lanes[at + by];
        if (beside !== undefined) onMove(circuitId, beside.id);
      },
      onLine: (circuitId, line) =>
        change(circuitId, `on ${line}`, (draft) => putOnLine(draft, group(circuitId), line)),
      onChoose: (circuitId) =>
        setChosen((now) => {
          const next = new Set(now);
          if (!next.delete(circuitId)) next.add(circuitId);
          return next;
        }),
    };
  }, [chosen, setChosen]);
}

function ChosenBar({
  chosen,
  onClear,
}: {
  readonly chosen: ReadonlySet<string>;
  readonly onClear: () => void;
}) {
  const { design } = useOpenJob();
  const change = useJob((store) => store.change);
  const stackOf = (): string | undefined => {
    const circuit = design.circuits.find((one) => chosen.has(one.id));
    return design.partitions.find((one) => one.id === circuit?.partitionId)?.stackId ?? design.stacks[0]?.id;
  };
  const stackId = stackOf();
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2" role="status">
      <strong>{namesOf(design, chosen)} chosen</strong>
      <span className="text-quiet">Drag one or press arrows: all of them move.</span>
      <button
        type="button"
        className="button"
        disabled={stackId === undefined}
        onClick={() =>
          stackId !== undefined &&
          change('See starts together', (draft) => addStartCase(draft, chosen, stackId))
        }
      >
        See these start together
      </button>
      <button type="button" className="button button-quiet" onClick={onClear}>
        Choose none
      </button>
    </div>
  );
}

/** One object for all time: a new one would make every chip be drawn again. */
const POINTER = { activationConstraint: { distance: 4 } };

interface BoardViewProps {
  readonly analysis: Analysis;
  readonly canEdit: boolean;
}

const BoardView = memo(function BoardView({ analysis, canEdit }: BoardViewProps) {
  const { design } = analysis;
  const change = useJob((store) => store.change);
  const lanes = useMemo(() => lanesOf(design), [design]);
  const names = laneNames(design);
  const lines = linesOf(analysis);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const sensors = useSensors(useSensor(PointerSensor, POINTER));
  const actions = useChipActions(chosen, setChosen);
  const tracks = useMemo(
    () => new Map(lanes.map((lane) => [laneKey(lane), tracksOf(analysis, lane, lanes)])),
    [analysis, lanes],
  );
  const scale = useMemo(() => scaleVa([...tracks.values()].flat()), [tracks]);
  const ghost = useGhostBoard(design);
  useEffect(giveFocus, [design]);
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    const lane = lanes.find((one) => laneKey(one) === over?.id);
    const circuit = design.circuits.find((one) => one.id === active.id);
    if (lane !== undefined && circuit !== undefined && circuit.partitionId !== lane.id)
      actions.onMove(circuit.id, lane.id);
  };
  return (
    <>
      {chosen.size > 0 && <ChosenBar chosen={chosen} onClear={() => setChosen(new Set())} />}
      <DndContext
        sensors={sensors}
        onDragEnd={onDragEnd}
        accessibility={{
          screenReaderInstructions: {
            draggable:
              'Press an arrow key to move the circuit to the board beside it, Space to choose it with others, or Enter for all choices.',
          },
        }}
      >
        <div className="grid items-start gap-2.5">
          {lanes.map((lane) => (
            <LaneView
              key={laneKey(lane)}
              lane={lane}
              lanes={names}
              lines={lines}
              tracks={tracks.get(laneKey(lane)) ?? []}
              ghostTracks={ghost.segments.get(laneKey(lane)) ?? new Map<Line, Segment[]>()}
              scaleVa={scale}
              canEdit={canEdit}
              chosen={chosen}
              proposed={ghost.words}
              actions={actions}
            />
          ))}
        </div>
      </DndContext>
      {canEdit && (
        <div className="no-print mt-3 flex flex-wrap items-center gap-2">
          <span className="text-quiet">Add a board:</span>
          {KINDS.map((kind) => (
            <button
              key={kind}
              type="button"
              className="button"
              onClick={() => change(`Add ${KIND_NAMES[kind]}`, (draft) => addPartition(draft, kind))}
            >
              {KIND_NAMES[kind]}
            </button>
          ))}
        </div>
      )}
    </>
  );
});

/** The lanes with their circuits; choosing, dragging and keys move them. The headroom is drawn first, the lanes right after. */
export function Board() {
  const { analysis, canEdit } = useOpenJob();
  return <BoardView analysis={useAfterPaint(analysis)} canEdit={canEdit} />;
}
