import { describePlace } from '@bastion/core';
import { AlertDialog } from 'radix-ui';
import { useJob, useOpenJob } from '../state/job.ts';

const shown = (value: unknown): string => {
  if (value === undefined) return 'not there';
  return typeof value === 'string' || typeof value === 'number' ? String(value) : 'another entry';
};

/** Two people changed the same place: shows both values and asks which stays. Nothing is lost until it is answered. */
export function ConflictDialog() {
  const save = useJob((store) => store.save);
  const settle = useJob((store) => store.settle);
  const { design } = useOpenJob();
  if (save.kind !== 'conflict') return null;
  return (
    <AlertDialog.Root open>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 bg-ink/25 dark:bg-black/50" />
        <AlertDialog.Content className="sheet fixed top-1/4 left-1/2 w-[min(34rem,92vw)] -translate-x-1/2 p-5">
          <AlertDialog.Title className="text-[17px] font-semibold">
            Somebody changed the same place
          </AlertDialog.Title>
          <AlertDialog.Description className="mt-1">
            Choose which value stays. The rest of what both typed is kept.
          </AlertDialog.Description>
          <table className="mt-3 w-full">
            <thead>
              <tr className="text-left text-quiet">
                <th>Place</th>
                <th>Theirs</th>
                <th>Yours</th>
              </tr>
            </thead>
            <tbody>
              {save.conflicts.map((conflict) => (
                <tr key={conflict.path.join('/')} className="border-t border-rule">
                  <td className="py-1">{describePlace(design, conflict.path)}</td>
                  <td>{shown(conflict.theirs)}</td>
                  <td>{shown(conflict.yours)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="mt-4 flex justify-end gap-2">
            <button type="button" className="button" onClick={() => settle('theirs')}>
              Keep theirs
            </button>
            <button type="button" className="button button-main" onClick={() => settle('mine')}>
              Keep mine
            </button>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
