import { DndContext, type DragEndEvent, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { type Line, SUPPLY_LINES } from '@bastion/core';
import { useMemo } from 'react';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { StripPanel } from '../../ui/StripPanel.tsx';
import { addUsualPartitions, type Lane, lanesOf, moveCircuit, putOnLine } from './lanes.ts';
import { LaneView } from './LaneView.tsx';

const STRIPS = [
  { title: 'Continuous load, surge beyond it', checks: ['load.continuous'], whisker: 'surge.largest-start' },
  { title: 'Largest start', checks: ['surge.largest-start'] },
  { title: 'Cold pickup', checks: ['surge.cold-pickup'] },
  { title: 'Pass-through', checks: ['grid.pass-through'] },
  { title: 'Grid port with charging', checks: ['grid.port'] },
  { title: 'Imbalance and neutral', checks: ['balance.lines', 'balance.neutral'] },
  { title: 'Service', checks: ['grid.service'] },
] as const;

/** Puts the keyboard back on a circuit after it has moved to another place on the page. */
const refocus = (circuitId: string): void => {
  requestAnimationFrame(() => document.getElementById(`chip-${circuitId}`)?.focus());
};

function FedBy({ lane }: { readonly lane: Lane }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const partition = design.partitions.find((one) => one.id === lane.id);
  if (partition?.kind !== 'backup') return null;
  return (
    <label className="flex items-center gap-2">
      <span className="whitespace-nowrap text-quiet">{partition.name} is fed by</span>
      <select
        className="input"
        data-field={`partitions/${partition.id}/stackId`}
        disabled={!canEdit}
        value={partition.stackId ?? ''}
        onChange={(event) =>
          change(`Feed ${partition.name}`, (draft) => {
            const target = draft.partitions.find((one) => one.id === partition.id);
            if (target !== undefined)
              put(target, 'stackId', event.target.value === '' ? undefined : event.target.value);
          })
        }
      >
        <option value="">not known</option>
        {design.stacks.map((stack) => (
          <option key={stack.id} value={stack.id}>
            {stack.name}
          </option>
        ))}
      </select>
    </label>
  );
}

function Board() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const lanes = useMemo(() => lanesOf(design), [design]);
  const lines =
    design.site.supply === undefined ? SUPPLY_LINES['three-phase'] : SUPPLY_LINES[design.site.supply];
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const nameOf = (circuitId: string): string =>
    design.circuits.find((one) => one.id === circuitId)?.name ?? circuitId;
  const onMove = (circuitId: string, lane: Lane): void => {
    change(`${nameOf(circuitId)} to ${lane.name}`, (draft) => moveCircuit(draft, circuitId, lane.id));
    refocus(circuitId);
  };
  const onLine = (circuitId: string, line: Line): void => {
    change(`${nameOf(circuitId)} on ${line}`, (draft) => putOnLine(draft, circuitId, line));
    refocus(circuitId);
  };
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    const lane = lanes.find((one) => (one.id ?? 'undecided') === over?.id);
    const circuit = design.circuits.find((one) => one.id === active.id);
    if (lane !== undefined && circuit !== undefined && circuit.partitionId !== lane.id)
      onMove(circuit.id, lane);
  };
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-4">
        {lanes.map((lane) => (
          <FedBy key={lane.id ?? 'undecided'} lane={lane} />
        ))}
        {canEdit && (
          <button
            type="button"
            className="button"
            onClick={() =>
              change(
                'Add a backup output',
                (draft) =>
                  void draft.partitions.push({
                    id: newId('p'),
                    name: `Backup output ${draft.partitions.filter((one) => one.kind === 'backup').length + 1}`,
                    kind: 'backup',
                  }),
              )
            }
          >
            Add a backup output
          </button>
        )}
      </div>
      <DndContext
        sensors={sensors}
        onDragEnd={onDragEnd}
        accessibility={{
          screenReaderInstructions: {
            draggable:
              'Press an arrow key to move the circuit to the board beside it, or Enter for all choices.',
          },
        }}
      >
        <div className="grid items-start gap-3 md:grid-cols-2">
          {lanes.map((lane) => (
            <LaneView
              key={lane.id ?? 'undecided'}
              lane={lane}
              lanes={lanes}
              lines={lines}
              canEdit={canEdit}
              onMove={onMove}
              onLine={onLine}
            />
          ))}
        </div>
      </DndContext>
    </>
  );
}

/** Which circuits the backup carries: boards with their circuits by line, and the headroom that moves with them. */
export function PartitionsStage() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  if (design.partitions.length === 0) {
    return (
      <div className="sheet max-w-xl p-6">
        <h2>No boards yet</h2>
        <p className="mt-2">
          Start with two: a grid side that goes dark in an outage, and a backup output that is carried. More
          can be added.
        </p>
        {canEdit && (
          <button
            type="button"
            className="button button-main mt-4"
            onClick={() => change('Add the usual boards', addUsualPartitions)}
          >
            Add grid side and backup output
          </button>
        )}
      </div>
    );
  }
  return (
    <div className="grid items-start gap-4 xl:grid-cols-[minmax(0,1fr)_400px]">
      <div className="min-w-0">
        <h2 className="sr-only">Partitions</h2>
        <Board />
      </div>
      <aside className="sheet p-3 xl:sticky xl:top-0" aria-label="Headroom">
        <h2 className="mb-2">Headroom</h2>
        {design.stacks.length === 0 ? (
          <p className="text-quiet">Headroom appears once a stack is chosen.</p>
        ) : (
          <StripPanel groups={STRIPS} />
        )}
      </aside>
    </div>
  );
}
