import type { ProcedureStep, wire } from '@bastion/core';
import { TriangleAlert } from 'lucide-react';
import { FromCapture } from './capture/FromCapture.tsx';
import { figureOf, type LiveProposal } from './live/LiveFigure.tsx';
import { ReasonToGoOn } from './ReasonToGoOn.tsx';
import { ReadingRow } from './ReadingRow.tsx';
import {
  currentValues,
  earlierAttempts,
  type HowTaken,
  type OnRead,
  stepVerdict,
  VERDICT_WORDS,
} from './runView.ts';
import { SkipStep } from './SkipStep.tsx';
import { VerdictMark } from './VerdictMark.tsx';

interface StepViewProps {
  readonly step: ProcedureStep;
  readonly readings: readonly wire.Reading[];
  readonly canWrite: boolean;
  readonly retesting: boolean;
  readonly onRetest: () => void;
  readonly onRead: OnRead;
  /** What a device says now of the readings of this step, by their ids; empty while none is read live. */
  readonly proposals: ReadonlyMap<string, LiveProposal>;
  readonly liveSource: string | undefined;
}

const sourced = (source: string | undefined): HowTaken | undefined =>
  source === undefined ? undefined : { source };

/** One step, large: what to do, the caution, the readings with their bands, and when to stop. */
export function StepView({
  step,
  readings,
  canWrite,
  retesting,
  onRetest,
  onRead,
  proposals,
  liveSource,
}: StepViewProps) {
  const { values, attempt } = currentValues(step, readings);
  const shown = retesting ? new Map<string, wire.Reading>() : values;
  const verdict = retesting ? 'pending' : stepVerdict(step, readings);
  const earlier = earlierAttempts(step, readings);
  const open = [...proposals].filter(([readingId]) => !shown.has(readingId));
  return (
    <article className="sheet p-4">
      <header className="flex flex-wrap items-center gap-3">
        <h2 className="flex-1 text-[19px]">{step.title}</h2>
        <VerdictMark verdict={verdict} />
      </header>
      {(verdict === 'abort' || verdict === 'outside') && (
        <p role="alert" className="mt-2 border-l-4 border-over bg-over-wash p-2 font-semibold">
          {verdict === 'abort'
            ? 'Past the abort limit. Stop, make safe, and find the cause before going on.'
            : 'Outside what is expected. Find the cause before going on.'}
        </p>
      )}
      {step.cautions.length > 0 && (
        <ul className="mt-3 border-l-4 border-tight bg-tight-wash p-2">
          {step.cautions.map((caution, index) => (
            <li key={index} className="flex gap-2 py-0.5">
              <TriangleAlert size={16} className="mt-0.5 shrink-0 text-tight" aria-hidden="true" />
              {caution}
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3 grid max-w-3xl gap-1 text-[16px]">
        {step.instructions.map((instruction, index) => (
          <p key={index}>{instruction}</p>
        ))}
      </div>
      {step.abortText !== undefined && (
        <p className="mt-2 text-over">
          <strong>Abort:</strong> {step.abortText}
        </p>
      )}
      <div className="mt-3">
        {step.readings.map((spec) => (
          <ReadingRow
            key={`${step.id} ${spec.id} ${retesting ? attempt + 1 : attempt}`}
            spec={spec}
            reading={shown.get(spec.id)}
            canWrite={canWrite}
            onRead={(value, source) => onRead(spec.id, value, sourced(source))}
            live={proposals.get(spec.id)}
            liveSource={liveSource}
          />
        ))}
      </div>
      {canWrite && open.length > 1 && (
        <button
          type="button"
          className="button mb-3"
          onClick={() => {
            for (const [readingId, { value }] of open)
              void onRead(readingId, figureOf(value), sourced(liveSource));
          }}
        >
          Take all {open.length} live figures that are not taken yet
        </button>
      )}
      {canWrite && <FromCapture step={step} onRead={onRead} />}
      {step.section !== 'gates' && (
        <SkipStep step={step} readings={readings} verdict={verdict} canWrite={canWrite} onRead={onRead} />
      )}
      {canWrite && !retesting && <ReasonToGoOn step={step} readings={readings} onRead={onRead} />}
      <footer className="flex flex-wrap items-center gap-3 border-t border-rule pt-3">
        {earlier.map((one) => (
          <span key={one.attempt} className="text-quiet">
            Attempt {one.attempt}: {VERDICT_WORDS[one.verdict]}
          </span>
        ))}
        {canWrite && !retesting && values.size > 0 && (
          <button type="button" className="button" onClick={onRetest}>
            Test this step again
          </button>
        )}
        {retesting && (
          <span className="text-quiet">Attempt {attempt + 1}: the earlier readings are kept.</span>
        )}
      </footer>
    </article>
  );
}
