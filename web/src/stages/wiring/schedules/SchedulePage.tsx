import {
  counted,
  labelSheet,
  type Schedule,
  SCHEDULE_KINDS,
  type ScheduleKind,
  sheetLabels,
  svgOf,
} from '@bastion/core';
import { Download, Printer } from 'lucide-react';
import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { downloadBlob } from '../../../state/documentFile.ts';
import { useOpenJob } from '../../../state/job.ts';
import { noteExport } from '../../../state/noteExport.ts';
import { KIND_TITLES } from './SchedulePanel.tsx';
import { ScheduleTable } from './ScheduleTable.tsx';
import { ScheduleTotals } from './ScheduleTotals.tsx';
import { useSchedule } from './useSchedule.ts';

const NOTHING_CHOSEN: ReadonlySet<string> = new Set();

/** The labels as they are cut out: a picture for each sheet of paper. */
function LabelSheets({ schedule }: { readonly schedule: Schedule }) {
  const { design } = useOpenJob();
  const sheets = useMemo(() => labelSheet(sheetLabels(schedule)).map((sheet) => svgOf(sheet)), [schedule]);
  return (
    <section aria-label="Label sheets" className="mt-4">
      <p className="no-print">
        <button
          type="button"
          className="button"
          onClick={() => {
            noteExport('svg');
            sheets.forEach((svg, at) =>
              downloadBlob(new Blob([svg], { type: 'image/svg+xml' }), `${design.name} labels ${at + 1}.svg`),
            );
          }}
        >
          <Download size={15} aria-hidden="true" /> SVG, {counted(sheets.length, 'sheet')}
        </button>
      </p>
      {sheets.map((svg, at) => (
        <img
          key={at}
          className="label-sheet mt-3 w-full max-w-[794px] bg-white"
          src={`data:image/svg+xml,${encodeURIComponent(svg)}`}
          alt={`Sheet ${at + 1} of ${sheets.length} with labels, as listed above`}
        />
      ))}
    </section>
  );
}

function WholeSchedule({ kind }: { readonly kind: ScheduleKind }) {
  const { id, design } = useOpenJob();
  const schedule = useSchedule(kind);
  return (
    <article className={kind === 'labels' ? '' : 'paper-wide'}>
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
      <ScheduleTotals totals={schedule.totals} />
      <ScheduleTable schedule={schedule} filter="" hidden={{}} chosen={NOTHING_CHOSEN} isWhole />
      {kind === 'labels' && <LabelSheets schedule={schedule} />}
    </article>
  );
}

/** One schedule as a page of its own, to print or to read on a small screen. */
export function SchedulePage() {
  const { kind } = useParams();
  const found = SCHEDULE_KINDS.find((one) => one === kind);
  return found === undefined ? <p>There is no such schedule.</p> : <WholeSchedule kind={found} />;
}
