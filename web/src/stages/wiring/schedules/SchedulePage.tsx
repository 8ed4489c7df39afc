import { SCHEDULE_KINDS, type ScheduleKind } from '@bastion/core';
import { Printer } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { useOpenJob } from '../../../state/job.ts';
import { KIND_TITLES, useSchedule } from './SchedulePanel.tsx';
import { ScheduleTable } from './ScheduleTable.tsx';

const NOTHING_CHOSEN: ReadonlySet<string> = new Set();

function WholeSchedule({ kind }: { readonly kind: ScheduleKind }) {
  const { id, design } = useOpenJob();
  const schedule = useSchedule(kind);
  return (
    <article className="paper-wide">
      <div className="flex flex-wrap items-baseline gap-3">
        <h2>{schedule.title}</h2>
        <p className="text-quiet">{design.name}</p>
        <button type="button" className="button no-print ml-auto" onClick={() => window.print()}>
          <Printer size={15} aria-hidden="true" /> Print
        </button>
        <Link className="button no-print" to={`/jobs/${id}/wiring`}>
          Back to the drawing
        </Link>
      </div>
      <nav className="no-print my-2 flex flex-wrap gap-2" aria-label="Schedules">
        {SCHEDULE_KINDS.map((one) => (
          <Link key={one} to={`/jobs/${id}/wiring/${one}`} aria-current={one === kind ? 'page' : undefined}>
            {KIND_TITLES[one]}
          </Link>
        ))}
      </nav>
      {schedule.notes.map((note) => (
        <p key={note} className="text-[13px] text-quiet">
          {note}
        </p>
      ))}
      <ScheduleTable schedule={schedule} filter="" hidden={{}} chosen={NOTHING_CHOSEN} isWhole />
    </article>
  );
}

/** One schedule as a page of its own, to print or to read on a small screen. */
export function SchedulePage() {
  const { kind } = useParams();
  const found = SCHEDULE_KINDS.find((one) => one === kind);
  return found === undefined ? <p>There is no such schedule.</p> : <WholeSchedule kind={found} />;
}
