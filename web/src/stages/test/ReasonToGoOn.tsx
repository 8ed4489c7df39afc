import { judgeReading, type ProcedureStep, type wire } from '@bastion/core';
import { type SyntheticEvent, useId, useState } from 'react';

interface ReasonToGoOnProps {
  readonly step: ProcedureStep;
  readonly values: ReadonlyMap<string, wire.Reading>;
  readonly onRead: (readingId: string, value: number, note?: string) => Promise<string | undefined>;
}

/** A step that failed is passed only with a reason by name: it goes into the record beside the reading. */
export function ReasonToGoOn({ step, values, onRead }: ReasonToGoOnProps) {
  const id = useId();
  const [reason, setReason] = useState('');
  const [failure, setFailure] = useState<string>();
  const failed = step.readings.find((spec) => {
    const verdict = judgeReading(spec, values.get(spec.id)?.value);
    return verdict === 'abort' || verdict === 'outside';
  });
  const taken = failed && values.get(failed.id);
  if (failed === undefined || taken === undefined) return null;
  if (taken.note !== '')
    return (
      <p className="border-t border-rule py-2">
        Gone on by {taken.by}: {taken.note}
      </p>
    );
  const send = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (reason.trim() !== '') void onRead(failed.id, taken.value, reason.trim()).then(setFailure);
  };
  return (
    <form className="flex flex-wrap items-end gap-2 border-t border-rule py-2" onSubmit={send}>
      <label htmlFor={id} className="min-w-64 flex-1">
        <span className="block text-[13px] text-quiet">
          Reason to go on although a reading is not within; it is recorded with your name
        </span>
        <input
          id={id}
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
  );
}
