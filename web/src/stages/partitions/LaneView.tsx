import { useDroppable } from '@dnd-kit/core';
import { type Circuit, formatQuantity, type Line } from '@bastion/core';
import { CircuitChip } from './CircuitChip.tsx';
import { circuitVa, type Lane } from './lanes.ts';

interface LaneViewProps {
  readonly lane: Lane;
  readonly lanes: readonly Lane[];
  readonly lines: readonly Line[];
  readonly canEdit: boolean;
  readonly onMove: (circuitId: string, lane: Lane) => void;
  readonly onLine: (circuitId: string, line: Line) => void;
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
    ...(several.length > 0 ? [{ key: 'several', title: 'Several', circuits: several }] : []),
    ...(without.length > 0 ? [{ key: 'without', title: 'No line', circuits: without }] : []),
  ];
}

const KIND_WORDS: Record<Lane['kind'], string> = {
  grid: 'dark in an outage',
  backup: 'carried in an outage',
  undecided: 'in no limit yet',
};

/** A partition with its circuits by line. Circuits are dropped on it. */
export function LaneView({ lane, lanes, lines, canEdit, onMove, onLine }: LaneViewProps) {
  const { setNodeRef, isOver } = useDroppable({ id: lane.id ?? 'undecided' });
  const known = lane.circuits.map(circuitVa);
  const sum = known.reduce<number>((total, va) => total + (va ?? 0), 0);
  return (
    <section
      ref={setNodeRef}
      data-field={lane.id === undefined ? undefined : `partitions/${lane.id}`}
      aria-label={lane.name}
      className={`sheet min-w-0 p-3 ${isOver ? 'outline-2 outline-touch' : ''} ${lane.kind === 'backup' ? 'border-t-[3px] border-t-ink' : ''} ${lane.kind === 'undecided' ? 'border-dashed border-unknown md:col-span-full' : ''}`}
    >
      <header className="mb-2">
        <h3 className="font-semibold">{lane.name}</h3>
        <p className="text-[12.5px] text-quiet">
          {KIND_WORDS[lane.kind]}, {formatQuantity(sum, 'VA')} expected
          {known.includes(undefined) && ' and something not known'}
        </p>
      </header>
      {lane.circuits.length === 0 && (
        <p className="py-3 text-quiet">Drop circuits here, or press an arrow key on one.</p>
      )}
      {groupsOf(lane.circuits, lines)
        .filter((group) => lane.kind !== 'undecided' || group.circuits.length > 0)
        .map((group) => (
          <div
            key={group.key}
            className="grid grid-cols-[3.6rem_1fr] items-start gap-1 border-t border-rule py-1.5"
          >
            <span className="pt-1 font-semibold">{group.title}</span>
            <ul className="flex min-w-0 flex-wrap gap-1">
              {group.circuits.map((circuit) => (
                <li key={circuit.id} className="max-w-full min-w-0">
                  <CircuitChip
                    circuit={circuit}
                    lane={lane}
                    lanes={lanes}
                    lines={lines}
                    canEdit={canEdit}
                    onMove={onMove}
                    onLine={onLine}
                  />
                </li>
              ))}
            </ul>
          </div>
        ))}
    </section>
  );
}
