import { type Analysis, analysisCauses, type Cause, checkById, stageOfFinding, STAGES } from '@bastion/core';
import { memo } from 'react';
import { NavLink } from 'react-router';
import { useOpenJob } from '../state/job.ts';
import { useAfterPaint } from './useAfterPaint.ts';

const homeOf = ({ worst }: Cause): string => stageOfFinding(worst, checkById(worst.check).family);

/** The stages in the order of the work, each with its count of open causes. */
export function StageRail({ jobId }: { readonly jobId: number }) {
  const { analysis } = useOpenJob();
  return <Rail jobId={jobId} analysis={useAfterPaint(analysis)} />;
}

const Rail = memo(function Rail({
  jobId,
  analysis,
}: {
  readonly jobId: number;
  readonly analysis: Analysis;
}) {
  // What follows from another cause is mended with it, and what is accepted is settled: neither is counted.
  const open = analysisCauses(analysis).filter(
    ({ state, follows, accepted }) => state !== 'tight' && follows === undefined && !accepted,
  );
  return (
    <nav
      aria-label="Stages"
      className="no-print relative flex shrink-0 overflow-x-auto border-rule max-lg:border-b lg:w-40 lg:flex-col lg:border-r lg:py-2"
    >
      {STAGES.map(({ key, title: label }, index) => {
        const count = key === 'limits' ? open.length : open.filter((cause) => homeOf(cause) === key).length;
        const hasOver = open.some(
          (cause) => cause.state === 'over' && (key === 'limits' || homeOf(cause) === key),
        );
        return (
          <NavLink
            key={key}
            to={`/jobs/${jobId}/${key}`}
            className={({ isActive }) =>
              `flex min-h-10 items-center gap-2 px-3 whitespace-nowrap text-ink no-underline hover:bg-sheet max-lg:border-b-[3px] lg:border-l-[3px] ${isActive ? 'border-touch bg-chosen font-semibold' : 'border-transparent'}`
            }
          >
            <span className="w-3 text-right text-quiet" aria-hidden="true">
              {index + 1}
            </span>
            <span className="flex-1">{label}</span>
            {count > 0 && (
              <span
                className={`condensed rounded-sm px-1.5 text-[12px] font-semibold ${hasOver ? 'bg-over-wash text-over' : 'bg-unknown-wash text-unknown'}`}
                title={hasOver ? 'Open causes, some over the limit' : 'Open questions'}
              >
                {count}
                <span className="sr-only"> open causes</span>
              </span>
            )}
          </NavLink>
        );
      })}
    </nav>
  );
});
