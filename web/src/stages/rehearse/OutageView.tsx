import { clockOf, formatQuantity, type OutageRun, type Plant, type RehearsalAsk } from '@bastion/core';
import { Download } from 'lucide-react';
import { Fragment, type ReactNode } from 'react';
import { downloadSheet } from '../../state/downloadSheet.ts';
import { useOpenJob } from '../../state/job.ts';
import { noteExport } from '../../state/noteExport.ts';
import type { Played } from './playOutage.ts';
import { KeptLine } from './KeptLine.tsx';
import { useKeptOutage } from './keptOutage.ts';
import { OutageSums } from './OutageSums.tsx';
import { useKeep } from './useKeep.ts';
import { type RehearsalVerdict, Verdict } from './Verdict.tsx';

/** More events than these are read in the table. */
const MOST_EVENTS = 60;

/** How long each board was served. */
function Boards({
  plant,
  run,
  played,
}: {
  readonly plant: Plant;
  readonly run: OutageRun;
  readonly played: Played;
}) {
  const hours = (minutes: number): number => Math.round((minutes / 60) * 100) / 100;
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-4 text-[13px]">
      {plant.boards.map(({ name, partitionId }, board) => (
        <Fragment key={partitionId}>
          <dt className="text-quiet">{name} is served for</dt>
          <dd className="tabular-nums">
            {hours(played.result.boardMinutes[board] ?? 0)} of {hours(run.minutes)} h
          </dd>
        </Fragment>
      ))}
    </dl>
  );
}

/** Every hour as a row, for whoever reads tables. */
function Hours({ run, played }: { readonly run: OutageRun; readonly played: Played }) {
  const hours = Array.from({ length: Math.ceil(run.minutes / 60) }, (_, hour) => hour * 60);
  const at = (column: Float64Array, minute: number): number => column[minute] ?? 0;
  const { design } = useOpenJob();
  const sheet = (): string[][] => [
    ['Clock', 'Minute', 'State of charge', 'Wanted [W]', 'Served [W]', 'Sun [W]', 'Generator [W]'],
    ...Array.from(played.soc, (soc, minute) => [
      clockOf(run, minute),
      String(minute),
      soc.toFixed(4),
      ...[played.wantedW, played.servedW, played.sunW, played.generatorW].map((column) =>
        at(column, minute).toFixed(1),
      ),
    ]),
  ];
  return (
    <details className="mt-2">
      <summary className="text-touch">As a table</summary>
      <button
        type="button"
        className="button no-print my-1"
        onClick={() => {
          noteExport('csv');
          void downloadSheet(sheet(), 'csv', { file: `${design.name}-outage.csv`, title: 'Outage' });
        }}
      >
        <Download size={15} aria-hidden="true" /> CSV, minute by minute
      </button>
      <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Hour by hour">
        <table className="schedule text-[13px]">
          <thead>
            <tr className="text-left text-quiet">
              {['Clock', 'Bank, %', 'Load', 'Served', 'Sun', 'Generator'].map((title) => (
                <th key={title} scope="col" className="font-normal">
                  {title}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {hours.map((minute) => (
              <tr key={minute} className="border-t border-rule tabular-nums">
                <th scope="row" className="text-left font-normal">
                  {clockOf(run, minute)}
                </th>
                <td>{Math.round(at(played.soc, minute) * 1000) / 10}</td>
                <td>{formatQuantity(at(played.wantedW, minute), 'W')}</td>
                <td>{formatQuantity(at(played.servedW, minute), 'W')}</td>
                <td>{formatQuantity(at(played.sunW, minute), 'W')}</td>
                <td>{formatQuantity(at(played.generatorW, minute), 'W')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}

/** An outage as the job keeps it. */
function keptOutage(ask: RehearsalAsk, { result }: Played, { state, words }: RehearsalVerdict) {
  const { energy } = result;
  return {
    played: 'outage' as const,
    startH: ask.startH ?? 0,
    hours: ask.hours ?? 1,
    month: ask.month ?? 12,
    clearness: ask.clearness ?? 0.5,
    fromFull: ask.fromFull ?? false,
    ...(ask.seed === undefined ? {} : { seed: ask.seed }),
    ...(ask.lose === undefined ? {} : { lose: { ...ask.lose } }),
    lastedH: result.lastedMinutes / 60,
    lowestSoc: result.lowestSoc,
    servedKwh: energy.served / 1000,
    unservedKwh: Math.max(0, energy.unserved / 1000),
    generatorH: result.generatorMinutes / 60,
    litres: result.litres,
    state,
    words,
  };
}

/** One outage, minute by minute: what came of it, what happens in it, and its hours as a table. */
export function OutageView({
  plant,
  run,
  played,
  verdict,
  ask,
  ruler,
  onGo,
}: {
  readonly plant: Plant;
  readonly run: OutageRun;
  readonly played: Played;
  readonly verdict: RehearsalVerdict;
  /** How it was asked for; undefined for one of many nights, which is kept with those. */
  readonly ask: RehearsalAsk | undefined;
  readonly ruler: ReactNode;
  /** Moves the cursor of the ruler, s. */
  readonly onGo: (seconds: number) => void;
}) {
  const { kept, keep } = useKeptOutage();
  const { id, design, revision } = useOpenJob();
  const keepInJob = useKeep(plant);
  return (
    <div className="grid gap-3">
      <Verdict verdict={verdict} />
      <KeptLine
        kept={kept}
        jobId={id}
        revision={revision}
        onKeep={() =>
          keep({
            jobId: id,
            of: `${design.name}, ${plant.name}`,
            revision,
            minutes: run.minutes,
            played,
            words: verdict.words,
          })
        }
        onDrop={() => keep(undefined)}
        {...(keepInJob === undefined || ask === undefined
          ? {}
          : { onKeepInJob: () => keepInJob(keptOutage(ask, played, verdict)) })}
      />
      {ruler}
      <div className="grid gap-4 md:grid-cols-2">
        <section>
          <h4 className="font-semibold">What happens</h4>
          {played.events.length === 0 && <p className="text-quiet">Nothing changes from beginning to end.</p>}
          <ol className="text-[13px]">
            {played.events.slice(0, MOST_EVENTS).map(({ minute, sentence, isBad }, at) => (
              <li key={at} className={`flex ${isBad ? 'text-over' : ''}`}>
                <button
                  type="button"
                  className="w-28 shrink-0 self-start text-left text-quiet tabular-nums underline-offset-2 hover:underline"
                  onClick={() => onGo(minute * 60)}
                >
                  {clockOf(run, minute)}
                </button>
                <span>{sentence}</span>
              </li>
            ))}
          </ol>
        </section>
        <section>
          <h4 className="font-semibold">What it comes to</h4>
          <Boards plant={plant} run={run} played={played} />
          <OutageSums played={played} kept={kept?.played} />
        </section>
      </div>
      <Hours run={run} played={played} />
    </div>
  );
}
