import { cellText, type DeliveryTick, type ScheduleRow, settingId } from '@bastion/core';
import { useMayChangeNote } from '../../../state/ownNote.ts';
import { TickPhotos } from '../../../ui/TickPhotos.tsx';
import { useSchedule } from '../schedules/useSchedule.ts';
import { FieldPages } from './FieldPages.tsx';
import { groupedBy } from './groupedBy.ts';
import { ReadBack } from './ReadBack.tsx';
import { useDone } from './useDone.ts';
import { WhoAndWhen } from './WhoAndWhen.tsx';

function OneSetting({ row, tick }: { readonly row: ScheduleRow; readonly tick: DeliveryTick | undefined }) {
  const id = settingId(row.id);
  const may = useMayChangeNote()(tick);
  const { cells } = row;
  const what = `${cellText(cells.setting)} of ${cellText(cells.device)}`;
  return (
    <li className="grid gap-2 border-t border-rule py-3">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className="text-quiet">{cellText(cells.setting)}</span>
        <span className="text-2xl font-bold">
          {cells.wanted === null ? 'not known' : cellText(cells.wanted)}
        </span>
      </div>
      <p className="text-quiet">{cellText(cells.why)}</p>
      <div className="flex flex-wrap items-end gap-2">
        <ReadBack
          id={id}
          label={`Read back: ${what}`}
          wanted={cells.wanted === null ? undefined : cellText(cells.wanted)}
          same="Shows this"
          tick={tick}
          may={may}
        />
      </div>
      {tick?.read !== undefined && row.state !== undefined && (
        <p role="status" className={`font-semibold ${row.state === 'within' ? 'text-within' : 'text-over'}`}>
          {row.state === 'within'
            ? 'as wanted'
            : cells.wanted === null
              ? 'what is wanted is not known'
              : `differs: ${cellText(cells.wanted)} is wanted`}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <TickPhotos lineId={id} what={what} tick={tick} may={may} />
      </div>
      <WhoAndWhen tick={tick} may={may} />
    </li>
  );
}

/** The settings on site, device by device: what each has to show, and what it shows, judged at once. */
export function SettingPage() {
  const schedule = useSchedule('settings');
  const { tickFor, isDone, isAgain, wantsPhoto } = useDone('settings');
  return (
    <FieldPages
      title="Settings"
      thing="setting"
      done="read back"
      groupName="Device"
      groups={[...groupedBy(schedule.rows, 'device')].map(([title, rows]) => ({
        title,
        ids: rows.map(({ id }) => settingId(id)),
        content: (
          <section className="sheet p-3" aria-label={title}>
            <h3 className="text-lg font-semibold">{title}</h3>
            {schedule.notes.map((note) => (
              <p key={note} className="mt-1 border-l-4 border-tight pl-2">
                {note}
              </p>
            ))}
            <ul className="mt-2">
              {rows.map((row) => (
                <OneSetting key={row.id} row={row} tick={tickFor(settingId(row.id))} />
              ))}
            </ul>
          </section>
        ),
      }))}
      isDone={isDone}
      isAgain={isAgain}
      wantsPhoto={wantsPhoto}
      empty="Settings follow from the inverters: choose them in Stack, and they appear here."
      caution="Settings go before the manual of the equipment nowhere: where it says otherwise, follow it and tell the designer."
    />
  );
}
