import { alarmOf, blockedBy, counted, type liveWire, type wire } from '@bastion/core';
import { ArrowLeft, ArrowRight, FileText } from 'lucide-react';
import { useMemo, useState } from 'react';
import { api, failureSentence } from '../../api/client.ts';
import { useOpenJob } from '../../state/job.ts';
import { EndRun } from './EndRun.tsx';
import { LiveBar } from './live/LiveBar.tsx';
import { LiveWatch } from './live/LiveWatch.tsx';
import { useLive } from './live/useLive.ts';
import { proposalsOf } from './live/proposals.ts';
import { currentValues, nextStep, type OnRead, stepVerdict } from './runView.ts';
import { RetestPanel } from './RetestPanel.tsx';
import { StepSpine } from './StepSpine.tsx';
import { StepsOnPaper } from './StepsOnPaper.tsx';
import { StepView } from './StepView.tsx';
import { useReadings } from './useReadings.ts';

interface RunPageProps {
  readonly run: wire.TestRun;
  /** Changes the run as it stands now, not as it was drawn: two answers may come close together. */
  readonly onChange: (change: (now: wire.TestRun) => wire.TestRun) => void;
  readonly onBack: () => void;
  /** Goes to another run. */
  readonly onOpen: (runId: number) => void;
}

const STATE_WORDS = { running: 'running', finished: 'finished', aborted: 'aborted' } as const;

const SHUT = {
  here: 'This is a gate: what comes after it opens when everything here is taken and within, or when a reason is given.',
  later: 'Shut until the gates before it are passed: it may be read, and takes no readings.',
} as const;

const liveSourceOf = ({ host, port, unitId }: liveWire.LiveDevice): string =>
  `live from ${host}:${port}, unit ${unitId}`;

/** A run of the test, one step at a time. */
export function RunPage({ run, onChange, onBack, onOpen }: RunPageProps) {
  const { id, canTest, revision, analysis } = useOpenJob();
  const { procedure } = run;
  const { readings, waiting, failure, add } = useReadings(run, onChange);
  const [at, setAt] = useState(() => nextStep(procedure, readings));
  const [retesting, setRetesting] = useState<string>();
  const step = procedure.steps[at];
  const live = useLive(id);
  const proposals = useMemo(
    () => (step === undefined ? new Map() : proposalsOf(analysis.installation, step, live)),
    [analysis.installation, step, live],
  );
  const isRunning = canTest && run.state === 'running';
  const verdicts = procedure.steps.map((one) => stepVerdict(one, readings));
  const blocked = isRunning ? blockedBy(procedure, readings) : undefined;
  // What is shut may be looked at; it takes no readings.
  const last = blocked?.step ?? procedure.steps.length - 1;
  const canWrite = isRunning && at <= last;
  const alarm = alarmOf(procedure, readings);
  const go = (index: number): void => {
    setRetesting(undefined);
    setAt(Math.min(Math.max(index, 0), procedure.steps.length - 1));
  };

  const read: OnRead = async (readingId, value, how = {}) => {
    if (step === undefined) return undefined;
    const { attempt, values } = currentValues(step, readings);
    const again = retesting === step.id;
    const earlier = again ? undefined : values.get(readingId);
    const taken = {
      key: crypto.randomUUID(),
      stepId: step.id,
      readingId,
      value,
      attempt: again ? attempt + 1 : attempt,
      ...how,
    };
    const problem = await add(taken, earlier !== undefined);
    if (problem === undefined) setRetesting(undefined);
    return problem;
  };

  const end = async (state: 'finished' | 'aborted', reason: string): Promise<string | undefined> => {
    if (waiting > 0)
      return `${counted(waiting, 'reading')} of this run ${waiting === 1 ? 'is' : 'are'} not with the server yet. End it when ${waiting === 1 ? 'it is' : 'they are'}.`;
    try {
      const ended = await api.endRun(run.id, state, reason);
      onChange(() => ended);
      return undefined;
    } catch (error) {
      return failureSentence(error);
    }
  };

  return (
    <div className="field-page grid gap-4 lg:grid-cols-[230px_minmax(0,1fr)]">
      <div className="no-print max-lg:order-2">
        <StepSpine procedure={procedure} readings={readings} at={at} last={last} onGo={go} />
      </div>
      <div className="grid content-start gap-3">
        <div className="flex flex-wrap items-center gap-3">
          <button type="button" className="button no-print" onClick={onBack}>
            <ArrowLeft size={16} aria-hidden="true" /> All runs
          </button>
          <p className="flex-1">
            <strong>Run {run.number}</strong>, {STATE_WORDS[run.state]}, on revision {run.revision}
            {run.revision !== revision && ' (the design has changed since)'}
            {run.reason !== '' && <>. Reason: {run.reason}</>}
          </p>
          <a
            className="button no-print"
            href={`/api/runs/${run.id}/record.pdf`}
            target="_blank"
            rel="noreferrer"
          >
            <FileText size={16} aria-hidden="true" /> Record as PDF
          </a>
        </div>
        {waiting > 0 && (
          <p role="status" className="border-l-4 border-tight bg-tight-wash p-2">
            {counted(waiting, 'reading')} {waiting === 1 ? 'waits' : 'wait'} on this device and{' '}
            {waiting === 1 ? 'goes' : 'go'} to the server when there is a connection. Nothing is lost by going
            on, or by closing this page.
          </p>
        )}
        <p role="alert" className="font-semibold text-over empty:hidden">
          {failure}
        </p>
        {alarm !== undefined && (
          <p
            role="alert"
            className="flex flex-wrap items-center gap-2 border-l-4 border-over bg-over-wash p-2 font-semibold"
          >
            <span className="flex-1">
              Past the abort limit: {procedure.steps[alarm.step]?.title}. Stop and make safe. The next steps
              stay shut until a retest is within, or a reason to go on is given.
            </span>
            {alarm.step !== at && (
              <button type="button" className="button no-print" onClick={() => go(alarm.step)}>
                Go to the step
              </button>
            )}
          </p>
        )}
        {blocked !== undefined && blocked.why === 'gate' && at >= blocked.step && (
          <p className="flex flex-wrap items-center gap-2 border-l-4 border-tight bg-tight-wash p-2">
            <span className="flex-1">{at === blocked.step ? SHUT.here : SHUT.later}</span>
            {at > blocked.step && (
              <button type="button" className="button no-print" onClick={() => go(blocked.step)}>
                Go to the gate
              </button>
            )}
          </p>
        )}
        {procedure.retest !== undefined && (
          <p className="border-l-4 border-tight p-2">
            A partial retest after run {procedure.retest.run}, on revision {procedure.retest.revision} then:{' '}
            {counted(procedure.retest.leftOut, 'step')} of the whole test{' '}
            {procedure.retest.leftOut === 1 ? 'is' : 'are'} not in it.
          </p>
        )}
        {run.state !== 'running' && run.revision !== revision && <RetestPanel run={run} onStarted={onOpen} />}
        {isRunning && (
          <div className="no-print grid gap-3">
            <LiveBar jobId={id} live={live} />
            {step !== undefined && <LiveWatch step={step} proposals={proposals} />}
          </div>
        )}
        <StepsOnPaper procedure={procedure} readings={readings} />
        {step !== undefined && (
          <div className="no-print">
            <StepView
              key={step.id}
              step={step}
              readings={readings}
              canWrite={canWrite}
              retesting={retesting === step.id}
              onRetest={() => setRetesting(step.id)}
              onRead={read}
              proposals={proposals}
              liveSource={live.device === undefined ? undefined : liveSourceOf(live.device)}
            />
          </div>
        )}
        <div className="no-print flex flex-wrap gap-2">
          <button type="button" className="button" disabled={at === 0} onClick={() => go(at - 1)}>
            <ArrowLeft size={16} aria-hidden="true" /> Step before
          </button>
          <button
            type="button"
            className="button"
            disabled={at === procedure.steps.length - 1}
            onClick={() => go(at + 1)}
          >
            Next step <ArrowRight size={16} aria-hidden="true" />
          </button>
          <span className="flex-1" />
          {isRunning && (
            <EndRun
              pending={verdicts.filter((verdict) => verdict === 'pending').length}
              failing={verdicts.filter((verdict) => verdict === 'outside' || verdict === 'abort').length}
              onEnd={end}
            />
          )}
        </div>
      </div>
    </div>
  );
}
