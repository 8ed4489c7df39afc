import type { Circuit, Design, Item } from '@bastion/core';
import { newId } from '../../state/job.ts';
import type { Row } from './columns.ts';

/** A new item: one of it, all of it running at the peak. The rest is not known until it is typed. */
export const newItem = (): Item => ({ id: newId('i'), name: 'New item', quantity: 1, demandFactor: 1 });
export const newCircuit = (): Circuit => ({ id: newId('c'), name: 'New circuit', items: [newItem()] });

const circuitOf = (draft: Design, row: Row): Circuit | undefined =>
  draft.circuits.find((one) => one.id === row.circuit.id);

/** The drafted thing behind a row. */
export function targetOf(draft: Design, row: Row): Circuit | Item | undefined {
  const circuit = circuitOf(draft, row);
  return row.kind === 'circuit' ? circuit : circuit?.items.find((one) => one.id === row.item.id);
}

export function addItemAfter(draft: Design, row: Row, item: Item): void {
  const circuit = circuitOf(draft, row);
  if (circuit === undefined) return;
  const at = row.kind === 'item' ? circuit.items.findIndex((one) => one.id === row.item.id) + 1 : 0;
  circuit.items.splice(at, 0, item);
}

export function addCircuitAfter(draft: Design, row: Row | undefined, circuit: Circuit): void {
  const at =
    row === undefined
      ? draft.circuits.length
      : draft.circuits.findIndex((one) => one.id === row.circuit.id) + 1;
  draft.circuits.splice(at, 0, circuit);
}

/** Copies a row to the place below it, with ids of its own. */
export function duplicateRow(draft: Design, row: Row): void {
  if (row.kind === 'item') {
    addItemAfter(draft, row, { ...row.item, id: newId('i') });
    return;
  }
  const items = row.circuit.items.map((item) => ({ ...item, id: newId('i') }));
  addCircuitAfter(draft, row, { ...row.circuit, id: newId('c'), name: `${row.circuit.name} (copy)`, items });
}

export function deleteRow(draft: Design, row: Row): void {
  if (row.kind === 'circuit') draft.circuits = draft.circuits.filter((one) => one.id !== row.circuit.id);
  else {
    const circuit = circuitOf(draft, row);
    if (circuit !== undefined) circuit.items = circuit.items.filter((one) => one.id !== row.item.id);
  }
}
