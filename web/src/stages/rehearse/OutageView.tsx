import { formatQuantity, type OutageRun, type Plant, type RehearsalAsk } from '@bastion/core';
import type { ChartData, ChartOptions } from 'chart.js';
import { Download } from 'lucide-react';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { downloadSheet } from '../../state/downloadSheet.ts';
import { useOpenJob } from '../../state/job.ts';
import { noteExport } from '../../state/noteExport.ts';
import { type ChartInks, useChartInks } from '../../ui/chart.ts';
import { clockOf, type Played, playOutage, verdictOf } from './playOutage.ts';
import { KeptLine } from './KeptLine.tsx';
import { useKeptOutage } from './keptOutage.ts';
import { OutageSums } from './OutageSums.tsx';
import { useKeep } from './useKeep.ts';
import { type RehearsalVerdict, Verdict } from './Verdict.tsx';

/** A line of more points than this looks the same as one of these. */
const MOST_POINTS = 600;

type Points = { x: number; y: number }[];

function pointsOf(column: Float64Array, scale: number): Points {
  const step = Math.max(1, Math.floor(column.length / MOST_POINTS));
  const points: Points = [];
  for (let minute = 0; minute < column.length; minute += step)
    points.push({ x: minute / 60, y: (column[minute] ?? 0) * scale });
  return points;
}

function options(inks: ChartInks, hours: number, yTitle: string, most?: number): ChartOptions<'line'> {
  return {
    responsive: true,
    maintainAspectRatio: false,
    interaction: { mode: 'nearest', axis: 'x', intersect: false },
    scales: {
      x: {
        type: 'linear',
        min: 0,
        max: hours,
        title: { display: true, text: 'hours since the grid went', color: inks.quiet },
        ticks: { color: inks.quiet },
        grid: { color: inks.rule },
      },
      y: {
        beginAtZero: true,
        ...(most === undefined ? {} : { max: most }),
        title: { display: true, text: yTitle, color: inks.quiet },
        ticks: { color: inks.quiet },
        grid: { color: inks.rule },
      },
    },
    plugins: { legend: { labels: { color: inks.ink, boxHeight: 0, boxWidth: 28 } } },
  };
}

const line = (label: string, data: Points, colour: string, dash: number[]) => ({
  label,
  data,
  borderColor: colour,
  borderDash: dash,
  borderWidth: 2,
  pointRadius: 0,
  stepped: false as const,
});

/** Which boards are live when, as bars under the ruler of the chart. */
function Boards({
  plant,
  run,
  played,
}: {
  readonly plant: Plant;
  readonly run: OutageRun;
  readonly played: Played;
}) {
  return (
    <table className="w-full text-[13px]">
      <caption className="sr-only">Boards served</caption>
      <tbody>
        {plant.boards.map(({ name, partitionId }, board) => {
          const stretches: { from: number; to: number }[] = [];
          for (let minute = 0; minute < run.minutes; minute += 1) {
            if (((played.boards[minute] ?? 0) & (1 << board)) === 0) continue;
            const last = stretches.at(-1);
            if (last?.to === minute) last.to = minute + 1;
            else stretches.push({ from: minute, to: minute + 1 });
          }
          const served = played.result.boardMinutes[board] ?? 0;
          return (
            <tr key={partitionId}>
              <th scope="row" className="w-44 pr-2 text-left font-normal">
                {name}
              </th>
              <td className="h-6">
                <span className="relative block h-3 border border-rule" aria-hidden="true">
                  {stretches.map(({ from, to }) => (
                    <span
                      key={from}
                      className="absolute inset-y-0 bg-within"
                      style={{
                        left: `${(from / run.minutes) * 100}%`,
                        width: `${((to - from) / run.minutes) * 100}%`,
                      }}
                    />
                  ))}
                </span>
              </td>
              <td className="w-36 pl-2 text-right tabular-nums">
                {Math.round((served / 60) * 100) / 100} of {Math.round((run.minutes / 60) * 100) / 100} h
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
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

/** One outage, minute by minute: what is asked for and served, where it comes from, and how the bank stands. */
export function OutageView({
  plant,
  run,
  start,
  ask,
}: {
  readonly plant: Plant;
  readonly run: OutageRun;
  readonly start: RehearsalVerdict;
  /** How it was asked for; undefined for one of many nights, which is kept with those. */
  readonly ask: RehearsalAsk | undefined;
}) {
  const inks = useChartInks();
  const played = useMemo(() => playOutage(plant, run), [plant, run]);
  const verdict = verdictOf(played, run, plant, start);
  const { kept, keep } = useKeptOutage();
  const { id, design, revision } = useOpenJob();
  const keepInJob = useKeep(plant);
  const hours = Math.max(run.minutes, kept?.minutes ?? 0) / 60;
  const power: ChartData<'line', Points> = {
    datasets: [
      line('Wanted', pointsOf(played.wantedW, 1e-3), inks.quiet, [3, 3]),
      line('Served', pointsOf(played.servedW, 1e-3), inks.ink, []),
      line('Sun', pointsOf(played.sunW, 1e-3), inks.tight, [8, 3]),
      line('Generator', pointsOf(played.generatorW, 1e-3), inks.touch, [2, 2, 8, 2]),
      ...(kept === undefined
        ? []
        : [line('Served, kept run', pointsOf(kept.played.servedW, 1e-3), inks.unknown, [10, 2, 2, 2])]),
    ],
  };
  const bank: ChartData<'line', Points> = {
    datasets: [
      line('State of charge', pointsOf(played.soc, 100), inks.within, []),
      ...(kept === undefined
        ? []
        : [line('Kept run', pointsOf(kept.played.soc, 100), inks.unknown, [10, 2, 2, 2])]),
      line(
        'Discharge ends',
        [
          { x: 0, y: plant.floorSoc * 100 },
          { x: hours, y: plant.floorSoc * 100 },
        ],
        inks.over,
        [2, 2],
      ),
    ],
  };
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
      <div className="h-52">
        <Line
          data={power}
          options={options(inks, hours, 'kW')}
          role="img"
          aria-label={`Power: ${verdict.words}`}
        />
      </div>
      <div className="h-44">
        <Line
          data={bank}
          options={options(inks, hours, '%', 100)}
          role="img"
          aria-label={`State of charge, lowest ${Math.round(played.result.lowestSoc * 100)} %`}
        />
      </div>
      <Boards plant={plant} run={run} played={played} />
      <div className="grid gap-4 md:grid-cols-2">
        <section>
          <h4 className="font-semibold">What happens</h4>
          {played.events.length === 0 && <p className="text-quiet">Nothing changes from beginning to end.</p>}
          <ol className="text-[13px]">
            {played.events.slice(0, 60).map(({ minute, sentence, isBad }, at) => (
              <li key={at} className={isBad ? 'text-over' : ''}>
                <span className="inline-block w-28 tabular-nums text-quiet">{clockOf(run, minute)}</span>
                {sentence}
              </li>
            ))}
          </ol>
        </section>
        <section>
          <h4 className="font-semibold">What it comes to</h4>
          <OutageSums played={played} kept={kept?.played} />
        </section>
      </div>
      <Hours run={run} played={played} />
    </div>
  );
}
