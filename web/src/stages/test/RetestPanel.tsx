import {
  counted,
  diff,
  generateProcedure,
  readDesign,
  type Retest,
  retestAfter,
  SAMPLE_TYPES,
  type wire,
} from '@bastion/core';
import { useState } from 'react';
import { api, failureSentence } from '../../api/client.ts';
import { useOpenJob } from '../../state/job.ts';

/** The reasons of a list of retests, each with how many steps it has. */
function reasonsOf(retests: readonly Retest[]): string {
  const counts = new Map<string, number>();
  for (const { why } of retests) counts.set(why, (counts.get(why) ?? 0) + 1);
  return [...counts].map(([why, count]) => `${counted(count, 'step')}: ${why}`).join('; ');
}

/** After the design has moved on: which steps of this run a change touched, and a run of those alone. */
export function RetestPanel({
  run,
  onStarted,
}: {
  readonly run: wire.TestRun;
  readonly onStarted: (runId: number) => void;
}) {
  const { id, design, analysis, revision, canTest } = useOpenJob();
  const [found, setFound] = useState<{ readonly revision: number; readonly retests: readonly Retest[] }>();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [failure, setFailure] = useState('');
  const look = async (): Promise<void> => {
    try {
      const { document } = await api.revision(id, run.revision);
      const read = readDesign(document, SAMPLE_TYPES);
      if (!read.ok) {
        setFailure('The design of that revision cannot be read any more: test the whole.');
        return;
      }
      const retests = retestAfter(
        run.procedure,
        generateProcedure(analysis),
        diff(read.value, design).map(({ path }) => path),
        design.stacks.map((stack) => stack.id),
      );
      setFound({ revision, retests });
      setChosen(new Set(retests.map(({ step }) => step.id)));
    } catch (error) {
      setFailure(failureSentence(error));
    }
  };
  const start = (): void => {
    api.startRun(id, { run: run.number, steps: [...chosen] }).then(
      (started) => onStarted(started.id),
      (error: unknown) => setFailure(failureSentence(error)),
    );
  };
  const isFresh = found?.revision === revision;
  return (
    <section className="sheet no-print grid gap-2 p-3" aria-label="Retest">
      <div className="flex flex-wrap items-center gap-3">
        <span className="flex-1">
          The design was changed after this run: revision {run.revision} then, {revision} now.
        </span>
        <button type="button" className="button" onClick={() => void look()}>
          What has to be tested again?
        </button>
      </div>
      <p role="alert" className="font-semibold text-over empty:hidden">
        {failure}
      </p>
      {isFresh && found.retests.length === 0 && (
        <p role="status">
          Nothing that this test looks at: what was changed moves no figure of it, and no step rests on it.
        </p>
      )}
      {isFresh && found.retests.length > 0 && (
        <>
          <p role="status">{reasonsOf(found.retests)}. All gates come first.</p>
          <ul className="grid max-h-72 gap-1 overflow-y-auto" tabIndex={0} aria-label="Steps to test again">
            {found.retests.map(({ step, why }) => (
              <li key={step.id}>
                <label className="flex min-h-8 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={chosen.has(step.id)}
                    onChange={({ target }) => {
                      const next = new Set(chosen);
                      if (target.checked) next.add(step.id);
                      else next.delete(step.id);
                      setChosen(next);
                    }}
                  />
                  <span>
                    {step.title} <span className="text-quiet">({why})</span>
                  </span>
                </label>
              </li>
            ))}
          </ul>
          <button
            type="button"
            className="button button-main justify-self-start"
            disabled={!canTest || chosen.size === 0}
            onClick={start}
          >
            Start a retest of {counted(chosen.size, 'step')}
          </button>
        </>
      )}
    </section>
  );
}
