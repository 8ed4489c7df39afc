import { type Analysis, checkById, type Finding, stageOfFinding, STAGES, STATES } from '@bastion/core';
import { memo } from 'react';
import { NavLink } from 'react-router';
import { useOpenJob } from '../state/job.ts';
import { useAfterPaint } from './useAfterPaint.ts';

const homeOf = (finding: Finding): string => stageOfFinding(finding, checkById(finding.check).family);

/** The stages in the order of the work, each with its count of open findings. */
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
  const open = analysis.findings.filter((finding) => finding.state === 'over' || finding.state === 'unknown');
  return (
    <nav
      aria-label="Stages"
      className="no-print relative flex shrink-0 overflow-x-auto border-rule max-lg:border-b lg:w-40 lg:flex-col lg:border-r lg:py-2"
    >
      {STAGES.map(({ key, title: label }, index) => {
        const count =
          key === 'limits' ? open.length : open.filter((finding) => homeOf(finding) === key).length;
        const hasOver = open.some(
          (finding) => finding.state === STATES[0] && (key === 'limits' || homeOf(finding) === key),
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
                title={hasOver ? 'Open findings, some over the limit' : 'Open findings, not known yet'}
              >
                {count}
                <span className="sr-only"> open findings</span>
              </span>
            )}
          </NavLink>
        );
      })}
    </nav>
  );
});
