import { type ProcedureStep, SKIPPED, skipOf, type Verdict, type wire } from '@bastion/core';
import { type SyntheticEvent, useId, useState } from 'react';
import type { OnRead } from './runView.ts';

interface SkipStepProps {
  readonly step: ProcedureStep;
  readonly readings: readonly wire.Reading[];
  readonly verdict: Verdict;
  readonly canWrite: boolean;
  readonly onRead: OnRead;
}

/** A step that is not done has a reason by name; it may be taken up again. */
export function SkipStep({ step, readings, verdict, canWrite, onRead }: SkipStepProps) {
  const id = useId();
  const [reason, setReason] = useState('');
  const [failure, setFailure] = useState<string>();
  const skipped = skipOf(step, readings);
  const say = (value: 0 | 1, note: string): void =>
    void onRead(SKIPPED, value, { note }).then((problem) => {
      setFailure(problem);
      if (problem === undefined) setReason('');
    });
  if (skipped !== undefined)
    return (
      <p className="flex flex-wrap items-center gap-3 border-l-4 border-tight bg-tight-wash p-2">
        <span className="flex-1">
          Skipped by {skipped.by}: {skipped.note}
        </span>
        {canWrite && (
          <button type="button" className="button" onClick={() => say(0, 'Taken up again')}>
            Take it up again
          </button>
        )}
      </p>
    );
  if (!canWrite || verdict !== 'pending') return null;
  return (
    <details className="border-t border-rule py-2">
      <summary className="cursor-pointer text-quiet">Skip this step with a reason</summary>
      <form
        className="mt-2 flex flex-wrap items-end gap-2"
        onSubmit={(event: SyntheticEvent) => {
          event.preventDefault();
          if (reason.trim() !== '') say(1, reason.trim());
        }}
      >
        <label htmlFor={id} className="min-w-64 flex-1">
          <span className="block text-[13px] text-quiet">
            Why it is not done; it is recorded with your name
          </span>
          <input
            id={id}
            className="input"
            maxLength={1000}
            value={reason}
            onChange={({ target }) => setReason(target.value)}
          />
        </label>
        <button type="submit" className="button" disabled={reason.trim() === ''}>
          Skip it
        </button>
        <p role="alert" className="w-full font-semibold text-over empty:hidden">
          {failure}
        </p>
      </form>
    </details>
  );
}
