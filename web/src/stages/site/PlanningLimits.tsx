import { DEFAULT_KEYS, type DefaultKey, DEFAULTS, formatNumber } from '@bastion/core';
import { RotateCcw } from 'lucide-react';
import { useState } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { readNumber } from '../../ui/readNumber.ts';

function OverrideForm() {
  const change = useJob((store) => store.change);
  const [key, setKey] = useState<DefaultKey>('tightMargin');
  const [value, setValue] = useState('');
  const [reason, setReason] = useState('');
  const [failure, setFailure] = useState('');
  const add = (): void => {
    const read = readNumber(value);
    if (read === undefined) {
      setFailure(`"${value}" is not a number.`);
      return;
    }
    const problems = change(`Change the limit ${key}`, (draft) => {
      draft.defaults = [
        ...draft.defaults.filter((one) => one.id !== key),
        { id: key, value: read, reason: reason.trim() },
      ];
    });
    setFailure(problems.length > 0 ? 'A reason of a few words is needed, and a value from 0 on.' : '');
    if (problems.length > 0) return;
    setValue('');
    setReason('');
  };
  return (
    <div className="mt-3 flex flex-wrap items-end gap-2">
      <label className="block">
        <span className="block text-[13px] text-quiet">Limit</span>
        <select
          className="input"
          value={key}
          onChange={(event) => setKey(DEFAULT_KEYS.find((one) => one === event.target.value) ?? key)}
        >
          {DEFAULT_KEYS.map((one) => (
            <option key={one} value={one}>
              {DEFAULTS[one].meaning}
            </option>
          ))}
        </select>
      </label>
      <label className="block">
        <span className="block text-[13px] text-quiet">New value</span>
        <input
          className="input w-24 text-right"
          value={value}
          onChange={(event) => setValue(event.target.value)}
        />
      </label>
      <label className="block flex-1">
        <span className="block text-[13px] text-quiet">Reason</span>
        <input className="input" value={reason} onChange={(event) => setReason(event.target.value)} />
      </label>
      <button type="button" className="button" onClick={add}>
        Change the limit
      </button>
      <p role="alert" className="w-full font-semibold text-over empty:hidden">
        {failure}
      </p>
    </div>
  );
}

/** The planning limits of this job. Each can be changed by a licensed person, with a reason that is printed. */
export function PlanningLimits() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  return (
    <details className="sheet mt-4 p-4">
      <summary className="font-semibold">
        Planning limits{' '}
        {design.defaults.length > 0 && (
          <span className="text-tight">({design.defaults.length} changed for this job)</span>
        )}
      </summary>
      <p className="mt-2 text-quiet">
        A licensed person may change these for this job. The reason stands in the working and on paper.
      </p>
      <table className="mt-2 w-full">
        <tbody>
          {DEFAULT_KEYS.map((key) => {
            const override = design.defaults.find((one) => one.id === key);
            const { value, unit, meaning } = DEFAULTS[key];
            return (
              <tr key={key} className="border-t border-rule align-top">
                <td className="py-1 pr-3">
                  {meaning}
                  {override !== undefined && <p className="text-tight">Changed: {override.reason}</p>}
                </td>
                <td className="py-1 text-right whitespace-nowrap">
                  {formatNumber(override?.value ?? value)} {unit}
                  {override !== undefined && (
                    <span className="text-quiet"> (else {formatNumber(value)})</span>
                  )}
                </td>
                <td className="w-10 text-right">
                  {override !== undefined && canEdit && (
                    <button
                      type="button"
                      className="button button-quiet"
                      aria-label={`Back to the planning value: ${meaning}`}
                      onClick={() =>
                        change(
                          `Planning value for ${key}`,
                          (draft) => void (draft.defaults = draft.defaults.filter((one) => one.id !== key)),
                        )
                      }
                    >
                      <RotateCcw size={14} aria-hidden="true" />
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {canEdit && <OverrideForm />}
    </details>
  );
}
