import { cellText, type DeliveryTick, linkTickId, type ScheduleRow } from '@bastion/core';
import { tickOf } from '../../../state/deliveryTick.ts';
import { useJob } from '../../../state/job.ts';
import { useMayChangeNote } from '../../../state/ownNote.ts';
import { put } from '../../../state/put.ts';
import { TextField } from '../../../ui/fields.tsx';
import { TickPhotos } from '../../../ui/TickPhotos.tsx';
import { useSchedule } from '../schedules/useSchedule.ts';
import { FieldPages } from './FieldPages.tsx';
import { MadeButtons } from './MadeButtons.tsx';
import { useDone } from './useDone.ts';
import { WhoAndWhen } from './WhoAndWhen.tsx';

function End({
  title,
  row,
  of,
}: {
  readonly title: string;
  readonly row: ScheduleRow;
  readonly of: 'from' | 'to';
}) {
  const { cells } = row;
  return (
    <div>
      <h4 className="text-quiet">{title}</h4>
      <p className="text-xl font-semibold">{cellText(cells[of])}</p>
      <p>Socket {cellText(cells[`${of}Socket`])}</p>
      <p>{cells[`${of}Pins`] === null ? 'Its type states no pins' : cellText(cells[`${of}Pins`])}</p>
    </div>
  );
}

function OneLink({ row, tick }: { readonly row: ScheduleRow; readonly tick: DeliveryTick | undefined }) {
  const change = useJob((store) => store.change);
  const id = linkTickId(row.id);
  const may = useMayChangeNote()(tick);
  const { cells } = row;
  const what = `${cellText(cells.kind)}, ${cellText(cells.from)} to ${cellText(cells.to)}`;
  const idle = cellText(cells.idle);
  const facts = (
    [
      ['Cable', cells.cable],
      ['Length', cells.length === null ? '' : `${cellText(cells.length)} m`],
      ['Shield', cells.shield],
      ['Terminators', cells.ends],
      ['Address', cells.address],
    ] as const
  ).filter(([, text]) => text !== '');
  return (
    <section className="sheet grid gap-3 p-3" aria-label={what}>
      <h3 className="text-lg font-semibold">
        {cellText(cells.order)}. {cellText(cells.kind)}
      </h3>
      <div className="grid gap-3 sm:grid-cols-2">
        <End title="From" row={row} of="from" />
        <End title="To" row={row} of="to" />
      </div>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3">
        {facts.map(([title, text]) => (
          <div key={title} className="contents">
            <dt className="text-quiet">{title}</dt>
            <dd>{cellText(text)}</dd>
          </div>
        ))}
      </dl>
      {cellText(cells.note) !== '' && <p className="border-l-4 border-tight pl-2">{cellText(cells.note)}</p>}
      <div className="flex flex-wrap items-end gap-2">
        <MadeButtons id={id} what={what} done="Made, tugged" tick={tick} may={may} />
        {idle !== '' && (
          <div className="w-52">
            <TextField
              label={`Idle voltage on the pair (${idle})`}
              path={['delivery', id, 'read']}
              value={tick?.read ?? ''}
              disabled={!may}
              onTake={(text) =>
                change(`Idle voltage: ${what}`, (draft) =>
                  put(tickOf(draft, id), 'read', text.trim() === '' ? undefined : text.trim()),
                )
              }
            />
          </div>
        )}
      </div>
      {tick?.read !== undefined && (
        <p role="status" className={`font-semibold ${row.state === 'within' ? 'text-within' : 'text-over'}`}>
          {row.state === undefined
            ? 'cannot be read as a voltage'
            : row.state === 'within'
              ? 'within: the pair idles as it should'
              : `outside of ${idle}: measure each end alone, hardest end first`}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <TickPhotos lineId={id} what={what} tick={tick} may={may} />
      </div>
      <WhoAndWhen tick={tick} may={may} />
    </section>
  );
}

/** The cables of comms on site, hardest end first: made, tugged, and the pair read at rest. */
export function LinkPage() {
  const schedule = useSchedule('comms');
  const { tickFor, isDone, isAgain, wantsPhoto } = useDone('comms');
  return (
    <FieldPages
      title="Comms"
      thing="cable"
      done="made"
      groupName="Cable"
      groups={schedule.rows.map((row) => ({
        title: `${cellText(row.cells.order)}. ${cellText(row.cells.kind)}, ${cellText(row.cells.from)} to ${cellText(row.cells.to)}`,
        ids: [linkTickId(row.id)],
        content: <OneLink row={row} tick={tickFor(linkTickId(row.id))} />,
      }))}
      isDone={isDone}
      isAgain={isAgain}
      wantsPhoto={wantsPhoto}
      empty="Cables of comms follow from what is plugged in Stack and from the meters and sensors in Wiring."
      caution="Keep buses apart from power conductors. Where a socket sits beside live terminals, prove those dead first."
    />
  );
}
