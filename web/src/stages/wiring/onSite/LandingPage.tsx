import { cellText, landingId, type ScheduleRow } from '@bastion/core';
import { tickOf } from '../../../state/deliveryTick.ts';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { useMayChangeNote } from '../../../state/ownNote.ts';
import { put } from '../../../state/put.ts';
import { NumberField } from '../../../ui/fields.tsx';
import { StateMark } from '../../../ui/StateMark.tsx';
import { TickPhotos } from '../../../ui/TickPhotos.tsx';
import { useSchedule } from '../schedules/useSchedule.ts';
import { FieldPages } from './FieldPages.tsx';
import { MadeButtons } from './MadeButtons.tsx';
import { PortDrawing } from './PortDrawing.tsx';
import { useDone } from './useDone.ts';
import { WhoAndWhen } from './WhoAndWhen.tsx';

/** The terminations of one port. */
interface PortRows {
  readonly title: string;
  readonly rows: readonly ScheduleRow[];
}

function portsOf(rows: readonly ScheduleRow[]): PortRows[] {
  const ports = new Map<string, ScheduleRow[]>();
  for (const row of rows) {
    const part = cellText(row.cells.part);
    const port = cellText(row.cells.port);
    const title = part.includes(port) ? part : `${part}, ${port}`;
    const found = ports.get(title);
    if (found === undefined) ports.set(title, [row]);
    else found.push(row);
  }
  return [...ports].map(([title, some]) => ({ title, rows: some }));
}

/** How a torque stands to the one that is wanted, within the tolerance of the job. */
function torqueWords(
  wanted: number,
  reading: number,
  tolerance: number,
): { readonly isGood: boolean; readonly words: string } {
  const off = reading / wanted - 1;
  if (Math.abs(off) <= tolerance + 1e-9) return { isGood: true, words: `within, of ${wanted} Nm` };
  return {
    isGood: false,
    words: `${off > 0 ? 'too tight' : 'too loose'}: ${wanted} Nm ± ${Math.round(tolerance * 100)} %`,
  };
}

function Landing({ row }: { readonly row: ScheduleRow }) {
  const { design, analysis } = useOpenJob();
  const change = useJob((store) => store.change);
  const id = landingId(row.id);
  const tick = design.delivery.find((one) => one.id === id);
  const may = useMayChangeNote()(tick);
  const { cells } = row;
  const what = `${cellText(cells.terminal)} of ${cellText(cells.part)}`;
  const wanted = typeof cells.torque === 'number' ? cells.torque : undefined;
  const isClicked = cells.torque === '';
  const judged =
    wanted === undefined || tick?.torqueNm === undefined
      ? undefined
      : torqueWords(wanted, tick.torqueNm, analysis.installation.defaults.torqueTolerance.value);
  const facts: readonly (readonly [string, string])[] = [
    ['Cable', cellText(cells.cable)],
    ['End', `${cellText(cells.end)}, ${cellText(cells.tool)}`],
    ['Strip', cells.strip === null ? 'not known' : `${cellText(cells.strip)} mm`],
    ['Torque', isClicked ? 'none: it clicks in' : wanted === undefined ? 'not known' : `${wanted} Nm`],
    ['Pull', isClicked ? 'by hand' : cells.pull === null ? 'not known' : `${cellText(cells.pull)} N`],
    ['Terminal', cellText(cells.shared)],
  ];
  return (
    <li className="grid gap-2 border-t border-rule py-3">
      <div className="flex items-baseline gap-3">
        <span className="text-2xl font-bold">{cellText(cells.terminal)}</span>
        <span className="text-xl">{cellText(cells.size)}</span>
        {row.state !== undefined && row.state !== 'within' && <StateMark state={row.state} />}
      </div>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3">
        {facts.map(([title, text]) => (
          <div key={title} className="contents">
            <dt className="text-quiet">{title}</dt>
            <dd>{text}</dd>
          </div>
        ))}
      </dl>
      {cellText(cells.note) !== '' && (
        <p className={row.state === 'over' ? 'text-over' : ''}>{cellText(cells.note)}</p>
      )}
      <div className="flex flex-wrap items-end gap-2">
        <MadeButtons
          id={id}
          what={what}
          done={isClicked ? 'Clicked in, tugged' : 'Landed, pulled'}
          tick={tick}
          may={may}
        />
        {!isClicked && (
          <div className="w-44">
            <NumberField
              label={`Torque shown at ${what}`}
              path={['delivery', id, 'torqueNm']}
              value={tick?.torqueNm}
              unit="Nm"
              absent="not read"
              disabled={!may}
              onTake={(value) =>
                change(`Torque: ${what}`, (draft) => put(tickOf(draft, id), 'torqueNm', value))
              }
            />
          </div>
        )}
      </div>
      {judged !== undefined && (
        <p role="status" className={`font-semibold ${judged.isGood ? 'text-within' : 'text-over'}`}>
          {judged.words}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <TickPhotos lineId={id} what={what} tick={tick} may={may} />
      </div>
      <WhoAndWhen tick={tick} may={may} />
    </li>
  );
}

function Port({ port }: { readonly port: PortRows }) {
  const dead = [...new Set(port.rows.map(({ cells }) => cellText(cells.dead)).filter((text) => text !== ''))];
  return (
    <section className="sheet p-3" aria-label={port.title}>
      <h3 className="text-lg font-semibold">{port.title}</h3>
      <p className="mt-1 border-l-4 border-over pl-2">
        <strong>Off, locked and proven dead first:</strong>{' '}
        {dead.length === 0 ? 'nothing is known to feed it; prove it dead all the same' : dead.join('; ')}.
      </p>
      <PortDrawing title={port.title} rows={port.rows} />
      <ul className="mt-2">
        {port.rows.map((row) => (
          <Landing key={row.id} row={row} />
        ))}
      </ul>
    </section>
  );
}

/** The terminations on site: one port at a time, large, ticked and read where the hands are, with or without a connection. */
export function LandingPage() {
  const schedule = useSchedule('terminations');
  const { isDone, isAgain } = useDone('terminations');
  const groups = portsOf(schedule.rows).map(({ title, rows }) => ({
    title,
    ids: rows.map(({ id }) => landingId(id)),
    content: <Port port={{ title, rows }} />,
  }));
  return (
    <FieldPages
      title="Terminations"
      thing="conductor end"
      done="landed"
      groupName="Port"
      groups={groups}
      isDone={isDone}
      isAgain={isAgain}
      empty="Terminations follow from the installation: choose supply, inverters and boards, and they appear here."
      caution="Prove dead with a proven tester, lock off, and follow the manual of the equipment where it says otherwise."
    />
  );
}
