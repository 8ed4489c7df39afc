import { type Circuit, type Design, type Item, withItemDefaults, withoutTouched } from '@bastion/core';
import { type Finish, newId } from '../../state/job.ts';
import type { Row } from './columns.ts';

/** A new item: one of it. The rest is not known until it is typed, or taken from the library by its name. */
export const newItem = (): Item => ({ id: newId('i'), name: 'New item', quantity: 1 });

/** A new circuit, on the only line where the supply has no other. */
export const newCircuit = ({ site }: Design): Circuit => ({
  id: newId('c'),
  name: 'New circuit',
  ...(site.supply === 'single-phase' ? { lines: ['L1'] } : {}),
  items: [newItem()],
});

/**
 * What follows from a change of the survey: first values for the items it adds, renames or gives another start class, and none left
 * where something was typed.
 */
export const settleSurvey: Finish = (before, after) =>
  withItemDefaults(before, withoutTouched(before, after));

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

/** A copy of a first value is one as well. */
function copyMarks(draft: Design, from: string, to: string): void {
  const copies = (draft.firstValues ?? [])
    .filter(({ id }) => id.startsWith(`${from}/`))
    .map(({ id }) => ({ id: to + id.slice(from.length) }));
  if (copies.length > 0) draft.firstValues = [...(draft.firstValues ?? []), ...copies];
}

/** Copies a row to the place below it, with ids of its own. */
export function duplicateRow(draft: Design, row: Row): void {
  const base = `circuits/${row.circuit.id}`;
  if (row.kind === 'item') {
    const id = newId('i');
    addItemAfter(draft, row, { ...row.item, id });
    copyMarks(draft, `${base}/items/${row.item.id}`, `${base}/items/${id}`);
    return;
  }
  const id = newId('c');
  const items = row.circuit.items.map((item) => ({ ...item, id: newId('i') }));
  addCircuitAfter(draft, row, { ...row.circuit, id, name: `${row.circuit.name} (copy)`, items });
  row.circuit.items.forEach((item, index) =>
    copyMarks(draft, `${base}/items/${item.id}`, `circuits/${id}/items/${items[index]?.id ?? ''}`),
  );
}

export function deleteRow(draft: Design, row: Row): void {
  if (row.kind === 'circuit') draft.circuits = draft.circuits.filter((one) => one.id !== row.circuit.id);
  else {
    const circuit = circuitOf(draft, row);
    if (circuit !== undefined) circuit.items = circuit.items.filter((one) => one.id !== row.item.id);
  }
}
