import { Check } from 'lucide-react';
import { keepFirst, useIsFirst } from '../state/firstValues.ts';
import { useJob } from '../state/job.ts';

/** Beside a field that the program filled to begin with: says so, and keeps the value as it is. */
export function FirstMark({ label, fieldKey }: { readonly label: string; readonly fieldKey: string }) {
  const isFirst = useIsFirst(fieldKey);
  const canEdit = useJob((store) => store.job?.canEdit === true);
  if (!isFirst) return null;
  if (!canEdit) return <span className="first-mark">first value</span>;
  return (
    <button
      type="button"
      className="first-mark"
      title="The program began with this value. Press to keep it as it is, or type another."
      aria-label={`First value. Keep ${label}`}
      onClick={() => keepFirst(`Keep ${label}`, new Set([fieldKey]))}
    >
      first value <Check size={11} aria-hidden="true" />
    </button>
  );
}
