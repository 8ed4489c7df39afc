import { useDroppable } from '@dnd-kit/core';
import { type ChipActions, CircuitChip } from './CircuitChip.tsx';
import { type Circuit, circuitVa, formatQuantity, type Line } from '@bastion/core';
import { KIND_WORDS, type Lane, laneKey, type LaneName } from './lanes.ts';
import { LaneSettings } from './LaneSettings.tsx';
import { LaneTracks } from './LaneTracks.tsx';
import type { Segment, Track } from './tracks.ts';

interface LaneViewProps {
  readonly lane: Lane;
  readonly lanes: readonly LaneName[];
  readonly lines: readonly Line[];
  readonly tracks: readonly Track[];
  readonly ghostTracks: ReadonlyMap<Line, readonly Segment[]>;
  readonly scaleVa: number;
  readonly canEdit: boolean;
  readonly chosen: ReadonlySet<string>;
  readonly proposed: ReadonlyMap<string, string>;
  readonly actions: ChipActions;
}

interface Group {
  readonly key: string;
  readonly title: string;
  readonly circuits: readonly Circuit[];
}

/** Groups of a lane: one for each line, one for circuits on several, one for those without a line. */
function groupsOf(circuits: readonly Circuit[], lines: readonly Line[]): Group[] {
  const groups = lines.map((line): Group => ({
    key: line,
    title: line,
    circuits: circuits.filter((circuit) => circuit.lines?.length === 1 && circuit.lines[0] === line),
  }));
  const several = circuits.filter((circuit) => (circuit.lines?.length ?? 0) > 1);
  const without = circuits.filter(
    (circuit) =>
      circuit.lines === undefined ||
      (circuit.lines.length === 1 && !lines.some((line) => line === circuit.lines?.[0])),
  );
  return [
    ...groups,
    { key: 'several', title: 'Several', circuits: several },
    { key: 'without', title: 'No line', circuits: without },
  ].filter((group) => group.circuits.length > 0);
}

const BORDER: Record<Lane['kind'], string> = {
  grid: '',
  backup: 'border-t-[3px] border-t-ink',
  shed: 'border-t-[3px] border-dashed border-t-ink',
  'locked-out': '',
  'generator-only': '',
  undecided: 'border-dashed border-unknown',
};

/** A partition as a lane: its lines to scale, and its circuits to take hold of. Circuits are dropped on it. */
export function LaneView(props: LaneViewProps) {
  const { lane, lanes, lines, tracks, canEdit, chosen, proposed, actions } = props;
  const { setNodeRef, isOver } = useDroppable({ id: laneKey(lane) });
  const known = lane.circuits.map(circuitVa);
  const sum = known.reduce<number>((total, va) => total + (va ?? 0), 0);
  return (
    <section
      ref={setNodeRef}
      data-field={lane.id === undefined ? undefined : `partitions/${lane.id}`}
      aria-label={lane.name}
      className={`sheet min-w-0 p-2.5 ${isOver ? 'outline-2 outline-touch' : ''} ${BORDER[lane.kind]}`}
    >
      <header className="mb-1 flex items-center gap-2">
        <h3 className="font-semibold">{lane.name}</h3>
        <p className="flex-1 text-[12.5px] text-quiet">
          {KIND_WORDS[lane.kind]}
          {lane.partition?.shedStage !== undefined && ` (stage ${lane.partition.shedStage})`},{' '}
          {formatQuantity(sum, 'VA')} expected
          {known.includes(undefined) && ' and something not known'}
        </p>
        {canEdit && lane.partition !== undefined && <LaneSettings partition={lane.partition} />}
      </header>
      {lane.id !== undefined && (
        <LaneTracks tracks={tracks} ghostTracks={props.ghostTracks} scaleVa={props.scaleVa} chosen={chosen} />
      )}
      {lane.circuits.length === 0 && (
        <p className="py-2 text-quiet">Drop circuits here, or press an arrow key on one.</p>
      )}
      <div className="mt-1.5">
        {groupsOf(lane.circuits, lines).map((group) => (
          <div
            key={group.key}
            className="lane-group grid grid-cols-[3.4rem_1fr] items-start gap-1 border-t border-rule py-1"
          >
            <span className="pt-1 font-semibold">{group.title}</span>
            <ul className="flex min-w-0 flex-wrap gap-1">
              {group.circuits.map((circuit) => (
                <li key={circuit.id} className="max-w-full min-w-0">
                  <CircuitChip
                    circuit={circuit}
                    laneName={lane.name}
                    laneId={lane.id}
                    lanes={lanes}
                    lines={lines}
                    canEdit={canEdit}
                    isChosen={chosen.has(circuit.id)}
                    proposed={proposed.get(circuit.id)}
                    actions={actions}
                  />
                </li>
              ))}
            </ul>
          </div>
        ))}
      </div>
    </section>
  );
}
