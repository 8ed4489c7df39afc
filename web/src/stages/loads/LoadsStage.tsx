import { counted } from '@bastion/core';
import { useJob, useOpenJob } from '../../state/job.ts';
import { LoadsTable } from './LoadsTable.tsx';
import { newCircuit } from './rowEdits.ts';

/** The survey: circuits and what hangs on them, as one table over the whole width. */
export function LoadsStage() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const items = design.circuits.reduce((sum, circuit) => sum + circuit.items.length, 0);
  if (design.circuits.length === 0) {
    return (
      <div className="sheet max-w-xl p-6">
        <h2>No circuits yet</h2>
        <p className="mt-2">
          Start with the first circuit of the board: its name, its line, and what hangs on it. Leave what you
          do not know empty; it is shown as unknown and never counted as nothing.
        </p>
        {canEdit && (
          <button
            type="button"
            className="button button-main mt-4"
            onClick={() => change('Add a circuit', (draft) => void draft.circuits.push(newCircuit()))}
          >
            Add the first circuit
          </button>
        )}
      </div>
    );
  }
  return (
    <>
      <div className="mb-2 flex items-baseline gap-3">
        <h2>Loads</h2>
        <p className="text-quiet">
          {counted(design.circuits.length, 'circuit')}, {counted(items, 'item')}. Enter edits, Delete makes a
          figure unknown, ? lists the keys.
        </p>
      </div>
      <LoadsTable />
    </>
  );
}
