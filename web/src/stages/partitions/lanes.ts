import { type Circuit, type Design, type Line, magnitude, type Partition } from '@bastion/core';
import { newId } from '../../state/job.ts';
import { put } from '../../state/put.ts';

/** A lane of the board: a partition, or the circuits that nobody has placed. */
export interface Lane {
  readonly id: string | undefined;
  readonly name: string;
  readonly kind: Partition['kind'] | 'undecided';
  readonly circuits: readonly Circuit[];
}

/** What is not placed yet comes first, because it is in no limit; then the grid side, then the backup outputs. */
export function lanesOf(design: Design): Lane[] {
  const order = [...design.partitions].sort((a, b) => (a.kind === b.kind ? 0 : a.kind === 'grid' ? -1 : 1));
  const lanes: Lane[] = order.map((partition) => ({
    id: partition.id,
    name: partition.name,
    kind: partition.kind,
    circuits: design.circuits.filter((circuit) => circuit.partitionId === partition.id),
  }));
  const placed = new Set(design.partitions.map((partition) => partition.id));
  const undecided = design.circuits.filter(
    (circuit) => circuit.partitionId === undefined || !placed.has(circuit.partitionId),
  );
  return undecided.length === 0 && lanes.length > 0
    ? lanes
    : [{ id: undefined, name: 'Not placed yet', kind: 'undecided', circuits: undecided }, ...lanes];
}

/** Expected VA of a circuit as a plain sum, for the length of its bar; undefined while a figure is missing. */
export function circuitVa(circuit: Circuit): number | undefined {
  if (circuit.items.length === 0) return undefined;
  let re = 0;
  let im = 0;
  for (const { quantity, runningW, powerFactor, demandFactor } of circuit.items) {
    if (
      quantity === undefined ||
      runningW === undefined ||
      powerFactor === undefined ||
      demandFactor === undefined
    )
      return undefined;
    const watts = quantity * runningW * demandFactor;
    re += watts;
    im += watts * Math.sqrt(1 / (powerFactor * powerFactor) - 1);
  }
  return magnitude({ re, im });
}

export function moveCircuit(draft: Design, circuitId: string, laneId: string | undefined): void {
  const circuit = draft.circuits.find((one) => one.id === circuitId);
  if (circuit !== undefined) put(circuit, 'partitionId', laneId);
}

export function putOnLine(draft: Design, circuitId: string, line: Line): void {
  const circuit = draft.circuits.find((one) => one.id === circuitId);
  if (circuit !== undefined && (circuit.lines ?? []).length < 2) circuit.lines = [line];
}

/** The two boards of a partial backup: the grid side, and one backup output fed by the first stack, if there is one. */
export function addUsualPartitions(draft: Design): void {
  const stack = draft.stacks[0];
  draft.partitions.push({ id: newId('p'), name: 'Grid side', kind: 'grid' });
  draft.partitions.push({
    id: newId('p'),
    name: 'Backup output',
    kind: 'backup',
    ...(stack === undefined ? {} : { stackId: stack.id }),
  });
}
