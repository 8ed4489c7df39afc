import {
  analyse,
  analysisCauses,
  applyEdits,
  asBuiltEdits,
  asBuiltId,
  type Cause,
  cellText,
  type DeliveryTick,
  diff,
  readDesign,
  type ScheduleRow,
} from '@bastion/core';
import { useMemo } from 'react';
import { catalogueNow } from '../../../state/catalogue.ts';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { useMayChangeNote } from '../../../state/ownNote.ts';
import { StateMark } from '../../../ui/StateMark.tsx';
import { TickPhotos } from '../../../ui/TickPhotos.tsx';
import { useSchedule } from '../schedules/useSchedule.ts';
import { FieldPages } from './FieldPages.tsx';
import { groupedBy } from './groupedBy.ts';
import { ReadBack } from './ReadBack.tsx';
import { useDone } from './useDone.ts';
import { WhoAndWhen } from './WhoAndWhen.tsx';

function OneItem({ row, tick }: { readonly row: ScheduleRow; readonly tick: DeliveryTick | undefined }) {
  const id = asBuiltId(row.id);
  const may = useMayChangeNote()(tick);
  const { cells } = row;
  const what = `${cellText(cells.what)} of ${cellText(cells.part)}`;
  return (
    <li className="grid gap-2 border-t border-rule py-3">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className="text-quiet">{cellText(cells.what)}</span>
        <span className="text-xl font-bold">{cellText(cells.planned)}</span>
      </div>
      <div className="flex flex-wrap items-end gap-2">
        <ReadBack
          id={id}
          label={`As built: ${what}`}
          wanted={cells.planned === null ? undefined : cellText(cells.planned)}
          same="As designed"
          tick={tick}
          may={may}
        />
        <TickPhotos lineId={id} what={what} tick={tick} may={may} />
      </div>
      {row.state !== undefined && (
        <p role="status" className="flex items-center gap-1.5 font-semibold">
          {row.state !== 'within' && <StateMark state={row.state} silent />}
          {cellText(cells.verdict)}
        </p>
      )}
      <WhoAndWhen tick={tick} may={may} />
    </li>
  );
}

/** What the design would say if it were as built: causes that come and causes that go. */
function useDifference() {
  const { design, analysis } = useOpenJob();
  return useMemo(() => {
    const edits = asBuiltEdits(analysis.installation, design.delivery);
    if (edits.length === 0) return undefined;
    const applied = applyEdits(design, edits);
    const read = applied.ok ? readDesign(applied.value, catalogueNow()) : applied;
    if (!read.ok)
      return { edits, problem: read.problems[0]?.message ?? 'it cannot be taken in', come: [], go: [] };
    const isOver = ({ state }: Cause): boolean => state === 'over';
    const before = analysisCauses(analysis).filter(isOver);
    const after = analysisCauses(analyse(read.value, catalogueNow())).filter(isOver);
    const ids = (some: readonly Cause[]): ReadonlySet<string> => new Set(some.map(({ id }) => id));
    const [old, now] = [ids(before), ids(after)];
    return {
      // With what really stood there before: a length may have come from the wall plan and was never typed.
      edits: diff(design, read.value),
      problem: undefined,
      come: after.filter(({ id }) => !old.has(id)),
      go: before.filter(({ id }) => !now.has(id)),
    };
  }, [design, analysis]);
}

function Difference() {
  const { canEdit } = useOpenJob();
  const apply = useJob((store) => store.apply);
  const found = useDifference();
  if (found === undefined) return null;
  const { edits, problem, come, go } = found;
  return (
    <section className="sheet grid gap-2 p-3" aria-label="What it changes">
      <h3 className="font-semibold">
        {edits.length === 1 ? 'One figure differs' : `${edits.length} figures differ`} from the design
      </h3>
      {problem !== undefined && <p className="text-over">{problem}</p>}
      {problem === undefined && come.length === 0 && go.length === 0 && (
        <p>With them nothing more and nothing less is over its limit.</p>
      )}
      {come.map(({ id, title }) => (
        <p key={id} className="flex items-center gap-1.5">
          <StateMark state="over" /> {title}
        </p>
      ))}
      {go.map(({ id, title }) => (
        <p key={id} className="flex items-center gap-1.5">
          <StateMark state="within" /> no longer over: {title}
        </p>
      ))}
      {canEdit && problem === undefined && (
        <p>
          <button type="button" className="button" onClick={() => void apply('As built', edits)}>
            Take it into the design
          </button>
        </p>
      )}
    </section>
  );
}

/** What was built, part by part: what differs is typed where it is seen, with what it changes. */
export function AsBuiltPage() {
  const schedule = useSchedule('as-built');
  const { tickFor, isDone, isAgain } = useDone();
  return (
    <div className="grid gap-3">
      <FieldPages
        title="As built"
        thing="figure"
        done="looked at"
        groupName="Part or cable"
        groups={[...groupedBy(schedule.rows, 'part')].map(([title, rows]) => ({
          title,
          ids: rows.map(({ id }) => asBuiltId(id)),
          content: (
            <section className="sheet p-3" aria-label={title}>
              <h3 className="text-lg font-semibold">{title}</h3>
              <ul className="mt-2">
                {rows.map((row) => (
                  <OneItem key={row.id} row={row} tick={tickFor(asBuiltId(row.id))} />
                ))}
              </ul>
            </section>
          ),
        }))}
        isDone={isDone}
        isAgain={isAgain}
        empty="Figures to compare follow from the design: cables with a length or a size, inverters, modules and strings."
        caution="Measure lengths and read plates with everything off and proven dead."
      />
      <div className="max-w-2xl">
        <Difference />
      </div>
    </div>
  );
}
