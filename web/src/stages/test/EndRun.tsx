import { AlertDialog } from 'radix-ui';
import { useId, useState } from 'react';

interface EndRunProps {
  readonly pending: number;
  readonly failing: number;
  readonly onEnd: (state: 'finished' | 'aborted', reason: string) => Promise<string | undefined>;
}

/** Finishing or aborting a run. Aborting needs a reason; finishing with something open or failing says so first. */
export function EndRun({ pending, failing, onEnd }: EndRunProps) {
  const [asked, setAsked] = useState<'finished' | 'aborted'>();
  const [reason, setReason] = useState('');
  const [failure, setFailure] = useState<string>();
  const id = useId();
  const end = async (): Promise<void> => {
    if (asked === undefined) return;
    const problem = await onEnd(asked, reason);
    setFailure(problem);
    if (problem === undefined) setAsked(undefined);
  };
  return (
    <>
      <button type="button" className="button" onClick={() => setAsked('aborted')}>
        Abort the test
      </button>
      <button type="button" className="button button-main" onClick={() => setAsked('finished')}>
        Finish the test
      </button>
      <AlertDialog.Root open={asked !== undefined} onOpenChange={(open) => !open && setAsked(undefined)}>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 bg-ink/25 dark:bg-black/50" />
          <AlertDialog.Content className="sheet field-page fixed top-1/4 left-1/2 w-[min(30rem,92vw)] -translate-x-1/2 p-5">
            <AlertDialog.Title className="text-[17px] font-semibold">
              {asked === 'aborted' ? 'Abort the test' : 'Finish the test'}
            </AlertDialog.Title>
            <AlertDialog.Description className="mt-1">
              {asked === 'aborted'
                ? 'Make the installation safe first. The readings so far are kept.'
                : `${pending} of the steps are not done and ${failing} have failed. The record says so. A finished run is not changed any more.`}
            </AlertDialog.Description>
            <label htmlFor={id} className="mt-3 block">
              {asked === 'aborted' ? 'Reason' : 'Remark (may be empty)'}
            </label>
            <input
              id={id}
              className="input"
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
            <p role="alert" className="font-semibold text-over empty:hidden">
              {failure}
            </p>
            <div className="mt-4 flex justify-end gap-2">
              <AlertDialog.Cancel className="button">Go on testing</AlertDialog.Cancel>
              <button
                type="button"
                className="button button-main"
                disabled={asked === 'aborted' && reason.trim() === ''}
                onClick={() => void end()}
              >
                {asked === 'aborted' ? 'Abort' : 'Finish'}
              </button>
            </div>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </>
  );
}
