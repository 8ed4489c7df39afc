import {
  BOARD_NAMES,
  type Circuit,
  counted,
  type Design,
  type Line,
  type Partition,
  usualBoard,
} from '@bastion/core';
import { newId } from '../../state/job.ts';
import { put } from '../../state/put.ts';

/** A lane of the board: a partition, or the circuits that nobody has placed. */
export interface Lane {
  readonly id: string | undefined;
  readonly name: string;
  readonly kind: Partition['kind'] | 'undecided';
  readonly partition: Partition | undefined;
  readonly circuits: readonly Circuit[];
}

export type LaneName = Pick<Lane, 'id' | 'name'>;

const namesOfPartitions = new WeakMap<readonly Partition[], readonly LaneName[]>();

/** The lanes by name; the same list as long as the boards are the same. */
export function laneNames({ partitions }: Design): readonly LaneName[] {
  const known = namesOfPartitions.get(partitions);
  if (known !== undefined) return known;
  const names = [
    { id: undefined, name: 'Not placed yet' },
    ...partitions.map(({ id, name }) => ({ id, name })),
  ];
  namesOfPartitions.set(partitions, names);
  return names;
}

const UNDECIDED = 'undecided';
export const laneKey = (lane: Lane): string => lane.id ?? UNDECIDED;

/** What each kind of lane means for an outage, in words that stand on the lane. */
export const KIND_WORDS: Record<Lane['kind'], string> = {
  grid: 'dark in an outage',
  backup: 'carried in an outage',
  shed: 'carried until its stage is shed',
  'locked-out': 'behind the stack, held off in an outage',
  'generator-only': 'live on grid and while the generator runs',
  undecided: 'in no limit yet',
};
export const KIND_NAMES = BOARD_NAMES;
export const KINDS = Object.keys(KIND_NAMES).filter((kind): kind is Partition['kind'] => kind in KIND_NAMES);
const ORDER: readonly Partition['kind'][] = ['grid', 'backup', 'shed', 'locked-out', 'generator-only'];

/** What is not placed yet comes first, because it is in no limit; then the grid side, then what hangs on the stacks. */
export function lanesOf(design: Design): Lane[] {
  const order = [...design.partitions].sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
  const lanes: Lane[] = order.map((partition) => ({
    id: partition.id,
    name: partition.name,
    kind: partition.kind,
    partition,
    circuits: design.circuits.filter((circuit) => circuit.partitionId === partition.id),
  }));
  const placed = new Set(design.partitions.map((partition) => partition.id));
  const undecided = design.circuits.filter(
    (circuit) => circuit.partitionId === undefined || !placed.has(circuit.partitionId),
  );
  if (undecided.length === 0 && lanes.length > 0) return lanes;
  const lane: Lane = {
    id: undefined,
    name: 'Not placed yet',
    kind: UNDECIDED,
    partition: undefined,
    circuits: undecided,
  };
  return [lane, ...lanes];
}

export function moveCircuits(draft: Design, ids: ReadonlySet<string>, laneId: string | undefined): void {
  for (const circuit of draft.circuits) if (ids.has(circuit.id)) put(circuit, 'partitionId', laneId);
}

/** Puts one-line circuits on a line; circuits on several lines stay as they are. */
export function putOnLine(draft: Design, ids: ReadonlySet<string>, line: Line): void {
  for (const circuit of draft.circuits)
    if (ids.has(circuit.id) && (circuit.lines ?? []).length < 2) circuit.lines = [line];
}

/** "X-ray" or "3 circuits", for what a step is called. */
export function namesOf(design: Design, ids: ReadonlySet<string>): string {
  const [first] = ids;
  if (ids.size !== 1) return counted(ids.size, 'circuit');
  return design.circuits.find((one) => one.id === first)?.name ?? '1 circuit';
}

export function addPartition(draft: Design, kind: Partition['kind']): void {
  draft.partitions.push(usualBoard(draft, kind, newId('p')));
}

/** The two boards of a partial backup: the grid side, and one backup output fed by the first stack, if there is one. */
export function addUsualPartitions(draft: Design): void {
  addPartition(draft, 'grid');
  addPartition(draft, 'backup');
}

/** All starting items of the chosen circuits, to be looked at together. */
export function addStartCase(draft: Design, ids: ReadonlySet<string>, stackId: string): void {
  const starts = draft.circuits
    .filter((circuit) => ids.has(circuit.id))
    .flatMap((circuit) =>
      circuit.items
        .filter((item) => item.startClass !== 'steady' && item.startClass !== 'electronic')
        .map((item) => ({ id: newId('x'), circuitId: circuit.id, itemId: item.id })),
    );
  const number = draft.startCases.length + 1;
  draft.startCases.push({ id: newId('k'), name: `Starts together ${number}`, stackId, starts });
}
