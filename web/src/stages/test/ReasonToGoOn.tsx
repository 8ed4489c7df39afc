import { failedReadings, hasReason, type ProcedureStep, type wire } from '@bastion/core';
import type { OnRead } from './runView.ts';
import { type SyntheticEvent, useId, useState } from 'react';

interface ReasonToGoOnProps {
  readonly step: ProcedureStep;
  readonly readings: readonly wire.Reading[];
  readonly onRead: OnRead;
}

/** A reading that failed is passed only with a reason by name: it goes into the record beside that reading. */
export function ReasonToGoOn({ step, readings, onRead }: ReasonToGoOnProps) {
  const id = useId();
  const [reason, setReason] = useState('');
  const [failure, setFailure] = useState<string>();
  const failed = failedReadings(step, readings);
  const next = failed.find((one) => !hasReason(one));
  const send = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (next === undefined || reason.trim() === '') return;
    void onRead(next.spec.id, next.taken.value, {
      note: reason.trim(),
      source: next.taken.source,
      ...(next.taken.captureId === null ? {} : { captureId: next.taken.captureId }),
    }).then((sentence) => {
      setFailure(sentence);
      if (sentence === undefined) setReason('');
    });
  };
  if (failed.length === 0) return null;
  return (
    <section className="border-t border-rule py-2">
      {failed.filter(hasReason).map(({ spec, taken }) => (
        <p key={spec.id}>
          {spec.label}: gone on by {taken.by}: {taken.note}
        </p>
      ))}
      {next && (
        <form className="flex flex-wrap items-end gap-2" onSubmit={send}>
          <p id={`${id}-what`} className="w-full">
            Not within: {next.spec.label}
          </p>
          <label htmlFor={id} className="min-w-64 flex-1">
            <span className="block text-[13px] text-quiet">
              Reason to go on; it is recorded with your name
            </span>
            <input
              id={id}
              aria-describedby={`${id}-what`}
              className="input"
              maxLength={1000}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
          </label>
          <button type="submit" className="button" disabled={reason.trim() === ''}>
            Go on with this reason
          </button>
          <p role="alert" className="w-full font-semibold text-over empty:hidden">
            {failure}
          </p>
        </form>
      )}
    </section>
  );
}
