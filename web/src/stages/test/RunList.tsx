import { counted, generateProcedure, type wire } from '@bastion/core';
import { format } from 'date-fns';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { StepsOnPaper } from './StepsOnPaper.tsx';
import { useJob, useOpenJob } from '../../state/job.ts';

interface RunListProps {
  readonly runs: readonly wire.RunSummary[];
  readonly onOpen: (runId: number) => void;
  readonly onStart: () => void;
}

const when = (iso: string): string => format(new Date(iso), 'd MMM yyyy, HH:mm');

/** The runs so far, and what a new one would ask for. */
export function RunList({ runs, onOpen, onStart }: RunListProps) {
  const { id, analysis, canTest, at } = useOpenJob();
  const isSaved = useJob((store) => store.save.kind === 'saved');
  const procedure = useMemo(() => generateProcedure(analysis), [analysis]);
  const over = analysis.findings.filter((finding) => finding.state === 'over').length;
  const unknown = analysis.findings.filter((finding) => finding.state === 'unknown').length;
  return (
    <div className="field-page grid max-w-4xl gap-4">
      <section className="sheet p-4">
        <h2>Start a run</h2>
        <p className="mt-1">
          From the design as it stands: {counted(procedure.steps.length, 'step')},{' '}
          {counted(
            procedure.steps.reduce((sum, step) => sum + step.readings.length, 0),
            'reading',
          )}
          . Expected values and abort limits are worked out now and stay with the run.
        </p>
        {(procedure.leftOut ?? []).length > 0 && (
          <details className="mt-2">
            <summary className="cursor-pointer">
              {counted(procedure.leftOut?.length ?? 0, 'part')} of a whole test not needed here
            </summary>
            <ul className="list-disc pl-5">
              {procedure.leftOut?.map(({ what, why }) => (
                <li key={`${what} ${why}`}>
                  {what}: {why}.
                </li>
              ))}
            </ul>
          </details>
        )}
        {over > 0 && (
          <p className="mt-2 border-l-4 border-over bg-over-wash p-2">
            {counted(over, 'finding')} over the limit
            {unknown > 0 && ` and ${counted(unknown, 'finding')} not known`}. The first gate asks whether each
            is mended or accepted in writing.
          </p>
        )}
        <button
          type="button"
          className="button button-main mt-3"
          disabled={!canTest || !isSaved}
          onClick={onStart}
        >
          Start a run
        </button>
        {!canTest && at === undefined && (
          <p className="mt-2 text-quiet">Your role reads test records; it does not run tests.</p>
        )}
      </section>
      <p className="no-print">
        <Link className="button" to={`/jobs/${id}/test/capture`}>
          Measure a capture
        </Link>{' '}
        <Link className="button" to={`/jobs/${id}/test/faults`}>
          Find a fault
        </Link>{' '}
        <Link className="button" to={`/jobs/${id}/test/site`}>
          Simulated site
        </Link>
      </p>
      <StepsOnPaper procedure={procedure} />
      <section className="sheet no-print p-4">
        <h2>Runs</h2>
        {runs.length === 0 ? (
          <p className="mt-1 text-quiet">None yet. Every run is kept, also one that was aborted.</p>
        ) : (
          <ul>
            {runs.map((run) => (
              <li key={run.id} className="mt-2 flex flex-wrap items-center gap-3 border-t border-rule pt-2">
                <button type="button" className="button" onClick={() => onOpen(run.id)}>
                  Open run {run.number}
                </button>
                <span className="flex-1">
                  <strong>{run.state}</strong>, revision {run.revision}, started by {run.startedBy} on{' '}
                  {when(run.startedAt)}
                  {run.endedAt !== null && `, ended ${when(run.endedAt)}`}
                  {run.reason !== '' && `. Reason: ${run.reason}`}
                </span>
              </li>
            ))}
          </ul>
        )}
      </section>
    </div>
  );
}
