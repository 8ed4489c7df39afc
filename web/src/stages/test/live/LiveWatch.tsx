import type { ProcedureStep } from '@bastion/core';
import { OctagonAlert } from 'lucide-react';
import { type LiveProposal, pastAbort } from './LiveFigure.tsx';

/** Watches the abort limits of a step while it is read live: what is past one is said at once, taken or not. */
export function LiveWatch({
  step,
  proposals,
}: {
  readonly step: ProcedureStep;
  readonly proposals: ReadonlyMap<string, LiveProposal>;
}) {
  const past = step.readings.flatMap((spec) => {
    const live = proposals.get(spec.id);
    const sentence = live === undefined ? undefined : pastAbort(spec, live.value);
    return sentence === undefined ? [] : [sentence];
  });
  if (past.length === 0) return null;
  return (
    <p role="alert" className="flex gap-2 border-l-4 border-over bg-over-wash p-2 font-semibold">
      <OctagonAlert size={18} className="mt-0.5 shrink-0 text-over" aria-hidden="true" />
      <span>Live, past the abort limit: {past.join('; ')}. Stop and make safe.</span>
    </p>
  );
}
