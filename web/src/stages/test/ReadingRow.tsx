import { bandFigures, judgeReading, type ReadingSpec, type wire } from '@bastion/core';
import { type SyntheticEvent, useId, useRef, useState } from 'react';
import { Link } from 'react-router';
import { useOpenJob } from '../../state/job.ts';
import { readNumber } from '../../ui/readNumber.ts';
import { Gauge } from './Gauge.tsx';
import { LiveFigure, type LiveProposal } from './live/LiveFigure.tsx';
import { VerdictMark } from './VerdictMark.tsx';

interface ReadingRowProps {
  readonly spec: ReadingSpec;
  readonly reading: wire.Reading | undefined;
  readonly canWrite: boolean;
  readonly onRead: (value: number, source?: string) => Promise<string | undefined>;
  /** What a device that is read live says of it now. */
  readonly live?: LiveProposal | undefined;
  readonly liveSource?: string | undefined;
}

function expectedWords(spec: ReadingSpec): string {
  const { expected, unit, missing, kind } = spec;
  if (kind === 'confirmation') return '';
  if (missing.length > 0) return `Cannot be judged. Missing: ${missing.join('; ')}.`;
  if (expected === undefined) return 'Recorded; there is no limit to hold it against.';
  return `Expected ${bandFigures(spec, expected)} ${unit}`.trim();
}

function Confirmation({ spec, reading, canWrite, onRead }: ReadingRowProps) {
  const [failure, setFailure] = useState<string>();
  const say = (value: 0 | 1): void => void onRead(value).then(setFailure);
  return (
    <fieldset className="border-t border-rule py-3">
      <legend className="sr-only">{spec.label}</legend>
      <div className="flex flex-wrap items-center gap-3">
        <span className="min-w-52 flex-1">{spec.label}</span>
        <button
          type="button"
          className="button"
          disabled={!canWrite}
          aria-pressed={reading?.value === 1}
          onClick={() => say(1)}
        >
          Yes
        </button>
        <button
          type="button"
          className="button"
          disabled={!canWrite}
          aria-pressed={reading?.value === 0}
          onClick={() => say(0)}
        >
          No
        </button>
        <span className="w-40">
          <VerdictMark verdict={judgeReading(spec, reading?.value)} />
        </span>
      </div>
      <p role="alert" className="font-semibold text-over empty:hidden">
        {failure}
      </p>
    </fieldset>
  );
}

function NumberReading({ spec, reading, canWrite, onRead, live, liveSource }: ReadingRowProps) {
  const id = useId();
  const { id: jobId } = useOpenJob();
  const shown = reading === undefined ? '' : String(reading.value);
  const [text, setText] = useState<string>();
  const isSending = useRef(false);
  const [failure, setFailure] = useState<string>();
  const take = (event?: SyntheticEvent): void => {
    event?.preventDefault();
    if (text === undefined || text.trim() === '' || text.trim() === shown) return;
    const value = readNumber(text);
    if (value === undefined) {
      setFailure(`"${text}" is not a number. It was not recorded.`);
      return;
    }
    // Enter and then leaving the field are one reading, not two.
    if (isSending.current) return;
    isSending.current = true;
    void onRead(value).then((problem) => {
      isSending.current = false;
      setFailure(problem);
      if (problem === undefined) setText(undefined);
    });
  };
  return (
    <form className="border-t border-rule py-3" onSubmit={take}>
      <div className="grid items-center gap-x-4 gap-y-1 md:grid-cols-[minmax(0,1fr)_150px_minmax(120px,260px)_160px]">
        <div>
          <label htmlFor={id}>{spec.label}</label>
          <p className="text-[12.5px] text-quiet">
            {expectedWords(spec)}
            {spec.abort !== undefined && `; stop outside ${bandFigures(spec, spec.abort)} ${spec.unit}`}
            <br />
            {spec.instrument}
          </p>
        </div>
        <div className="flex items-center gap-2">
          <input
            id={id}
            className="input text-right text-[17px]"
            inputMode="decimal"
            autoComplete="off"
            disabled={!canWrite}
            value={text ?? shown}
            aria-invalid={failure !== undefined}
            onChange={(event) => setText(event.target.value)}
            onBlur={() => take()}
          />
          <span className="w-8 text-quiet">{spec.unit}</span>
        </div>
        <Gauge spec={spec} value={reading?.value} />
        <VerdictMark verdict={judgeReading(spec, reading?.value)} />
      </div>
      {live !== undefined && (
        <LiveFigure
          spec={spec}
          proposal={live}
          canWrite={canWrite}
          onTake={(value) => {
            setText(undefined);
            void onRead(value, liveSource).then(setFailure);
          }}
        />
      )}
      {reading !== undefined && reading.captureId !== null && (
        <p className="text-[13px]">
          {reading.source}.{' '}
          <Link to={`/jobs/${jobId}/test/capture?kept=${reading.captureId}`}>Open it as it was</Link>
        </p>
      )}
      <p role="alert" className="font-semibold text-over empty:hidden">
        {failure}
      </p>
    </form>
  );
}

/** One reading: what to take with what, the band it should land in, and its verdict at once. */
export function ReadingRow(props: ReadingRowProps) {
  return props.spec.kind === 'confirmation' ? <Confirmation {...props} /> : <NumberReading {...props} />;
}
