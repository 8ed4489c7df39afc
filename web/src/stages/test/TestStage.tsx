import type { wire } from '@bastion/core';
import { useCallback, useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { api, failureSentence } from '../../api/client.ts';
import { useOpenJob } from '../../state/job.ts';
import { RunList } from './RunList.tsx';
import { RunPage } from './RunPage.tsx';

/** The islanding test: the list of runs, or one run by the number in the address. */
export function TestStage() {
  const { id, design } = useOpenJob();
  const [parameters, setParameters] = useSearchParams();
  const wanted = Number(parameters.get('run') ?? '0');
  const [runs, setRuns] = useState<readonly wire.RunSummary[]>([]);
  const [run, setRun] = useState<wire.TestRun>();
  const [failure, setFailure] = useState('');
  const fail = useCallback((error: unknown) => setFailure(failureSentence(error)), []);

  useEffect(() => {
    if (wanted === 0) api.runs(id).then(setRuns, fail);
    else api.run(wanted).then(setRun, fail);
  }, [id, wanted, fail]);

  const changeRun = useCallback(
    (change: (now: wire.TestRun) => wire.TestRun) => setRun((now) => (now === undefined ? now : change(now))),
    [],
  );
  const open = (runId: number): void => setParameters({ run: String(runId) });
  const start = (): void => {
    api.startRun(id).then((started) => {
      setRun(started);
      open(started.id);
    }, fail);
  };

  if (design.stacks.length === 0) {
    return (
      <div className="sheet max-w-xl p-6">
        <h2>No test yet</h2>
        <p className="mt-2">
          The test is made from the design. Choose a stack first; then its steps, expected values and abort
          limits follow.
        </p>
      </div>
    );
  }
  return (
    <>
      <p role="alert" className="mb-2 font-semibold text-over empty:hidden">
        {failure}
      </p>
      {wanted !== 0 && run?.id === wanted ? (
        <RunPage key={run.id} run={run} onChange={changeRun} onBack={() => setParameters({})} onOpen={open} />
      ) : (
        <RunList runs={runs} onOpen={open} onStart={start} />
      )}
    </>
  );
}
