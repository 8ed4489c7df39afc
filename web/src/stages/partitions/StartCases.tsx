import { counted } from '@bastion/core';
import { Trash2 } from 'lucide-react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { TextField } from '../../ui/fields.tsx';

/** The starts that somebody wants to see together; made by choosing circuits on the board. */
export function StartCases() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  if (design.startCases.length === 0)
    return (
      <p className="text-[12.5px] text-quiet">
        To see certain starts together, choose circuits with Space or Ctrl and press “See these start
        together”.
      </p>
    );
  return (
    <section aria-label="Chosen starts">
      <h3 className="text-[13px] font-semibold">Chosen starts</h3>
      {design.startCases.map((startCase) => (
        <div key={startCase.id} className="flex items-end gap-2">
          <div className="flex-1">
            <TextField
              label={counted(startCase.starts.length, 'start')}
              path={['startCases', startCase.id, 'name']}
              value={startCase.name}
              disabled={!canEdit}
              onTake={(value) =>
                change('Name of the chosen starts', (draft) => {
                  const target = draft.startCases.find((one) => one.id === startCase.id);
                  if (target !== undefined) target.name = value;
                })
              }
            />
          </div>
          {canEdit && (
            <button
              type="button"
              className="button button-quiet mb-1"
              aria-label={`Remove ${startCase.name}`}
              onClick={() =>
                change(
                  `Remove ${startCase.name}`,
                  (draft) =>
                    void (draft.startCases = draft.startCases.filter((one) => one.id !== startCase.id)),
                )
              }
            >
              <Trash2 size={14} aria-hidden="true" />
            </button>
          )}
        </div>
      ))}
    </section>
  );
}
