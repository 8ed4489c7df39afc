import { bandFigures, judgeReading, readingFigure, type ReadingSpec } from '@bastion/core';
import { ArrowDownToLine } from 'lucide-react';
import { VERDICT_WORDS } from '../runView.ts';
import { Trend } from './Trend.tsx';
import type { TrendPoint } from './useLive.ts';

export interface LiveProposal {
  readonly value: number;
  readonly points: readonly TrendPoint[];
}

/** A device counts in steps of its register: digits beyond those are arithmetic, not measurement. */
export const figureOf = (value: number): number => Number(value.toPrecision(6));

/** Past an abort limit, as a sentence; undefined while it is not. */
export function pastAbort(spec: ReadingSpec, value: number): string | undefined {
  if (spec.abort === undefined || judgeReading(spec, value) !== 'abort') return undefined;
  return `${spec.label} is ${readingFigure(figureOf(value))} ${spec.unit}, outside ${bandFigures(spec, spec.abort)} ${spec.unit}`;
}

interface LiveFigureProps {
  readonly spec: ReadingSpec;
  readonly proposal: LiveProposal;
  readonly canWrite: boolean;
  readonly onTake: (value: number) => void;
}

/** What a device says now of one reading: a proposal, which counts once a person takes it. */
export function LiveFigure({ spec, proposal, canWrite, onTake }: LiveFigureProps) {
  const { value, points } = proposal;
  const verdict = judgeReading(spec, figureOf(value));
  const isBad = verdict === 'abort' || verdict === 'outside';
  const shown = readingFigure(figureOf(value));
  return (
    <div className="mt-1 flex flex-wrap items-center gap-3">
      <span className="text-quiet">Live</span>
      <strong className={`tabular-nums ${isBad ? 'text-over' : ''}`}>
        {shown} {spec.unit}
      </strong>
      {isBad && (
        <span className="text-over">
          {VERDICT_WORDS[verdict]}
          {spec.expected !== undefined && `, expected ${bandFigures(spec, spec.expected)}`}
        </span>
      )}
      <Trend points={points} unit={spec.unit} />
      {canWrite && (
        <button
          type="button"
          className="button"
          aria-label={`Take ${`${shown} ${spec.unit}`.trim()} for ${spec.label}`}
          onClick={() => onTake(figureOf(value))}
        >
          <ArrowDownToLine size={16} aria-hidden="true" /> Take it
        </button>
      )}
    </div>
  );
}
