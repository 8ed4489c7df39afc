import { acceptanceOf, type Cause, figuresToAccept, isSameSubject } from '@bastion/core';
import { type SyntheticEvent, useId, useState } from 'react';
import { z } from 'zod';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { useSession } from '../../state/session.ts';
import { useKept } from '../../ui/useKept.ts';

type Accepted = Cause['worst'];

function OneAccepting({ finding }: { readonly finding: Accepted }) {
  const { id: jobId, analysis, canAccept } = useOpenJob();
  const change = useJob((store) => store.change);
  const session = useSession((store) => store.session);
  const id = useId();
  const { check, subject } = finding;
  const [reason, setReason, forget] = useKept(
    `accept-${jobId}-${check}-${subject.kind}-${subject.id}`,
    z.string(),
    '',
  );
  const [problem, setProblem] = useState('');
  const accepted = acceptanceOf(analysis.installation, finding);
  if (accepted !== undefined)
    return (
      <p className="flex flex-wrap items-baseline gap-2">
        <span className="flex-1">
          {finding.subject.label}: accepted by {accepted.by}, {new Date(accepted.at).toLocaleDateString()}.{' '}
          {accepted.reason}
        </span>
        {canAccept && (
          <button
            type="button"
            className="button no-print"
            onClick={() =>
              change('Take an acceptance back', (draft) => {
                draft.accepted = draft.accepted.filter((one) => one.id !== accepted.id);
              })
            }
          >
            Take it back
          </button>
        )}
      </p>
    );
  const { state } = finding;
  if (!canAccept || session.kind !== 'in' || (state !== 'over' && state !== 'unknown')) return null;
  const by = session.user.name;
  const accept = (event: SyntheticEvent): void => {
    event.preventDefault();
    const alike = analysis.findings.filter(
      (one) =>
        one.check === finding.check && one.state === state && isSameSubject(one.subject, finding.subject),
    );
    const problems = change(`Accept ${finding.subject.label}`, (draft) => {
      const { kind, id: subjectId } = finding.subject;
      const others = draft.accepted.filter(
        (one) => one.check !== finding.check || one.subject.kind !== kind || one.subject.id !== subjectId,
      );
      draft.accepted = [
        ...others,
        {
          id: newId('a'),
          check: finding.check,
          subject: { kind, id: subjectId },
          state,
          ...figuresToAccept(alike),
          reason: reason.trim(),
          by,
          at: new Date().toISOString(),
        },
      ];
    });
    setProblem(problems[0]?.message ?? '');
    if (problems.length === 0) forget();
  };
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={accept}>
      <label htmlFor={id} className="min-w-64 flex-1">
        <span className="block text-[13px] text-quiet">
          Reason for which {by} takes responsibility for {finding.subject.label}
        </span>
        <input
          id={id}
          className="input"
          maxLength={500}
          value={reason}
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      <button type="submit" className="button" disabled={reason.trim().length < 3}>
        Accept
      </button>
      <p role="alert" className="w-full font-semibold text-over empty:hidden">
        {problem}
      </p>
    </form>
  );
}

/** An approver takes responsibility for findings one by one, by name and with a reason; it lapses when their figures become worse. */
export function Accepting({ findings }: { readonly findings: readonly Accepted[] }) {
  const { analysis, canAccept } = useOpenJob();
  const isAny = findings.some((finding) => acceptanceOf(analysis.installation, finding) !== undefined);
  if (!canAccept && !isAny) return null;
  return (
    <div className="grid gap-2">
      <h3 className="font-semibold">Accepting</h3>
      <p className="text-[13px] text-quiet">
        An accepted finding stays a hazard. It is shown with your name in the limits, in the first gate of the
        test and in the record, and lapses when its figures become worse. Local codes, the manuals and the
        licensed person go before this page.
      </p>
      {findings.map((finding) => (
        <OneAccepting
          key={`${finding.check} ${finding.subject.kind} ${finding.subject.id}`}
          finding={finding}
        />
      ))}
    </div>
  );
}
