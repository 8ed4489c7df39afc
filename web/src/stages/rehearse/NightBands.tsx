import type { Band } from '@bastion/core';
import type { ChartData, ChartOptions } from 'chart.js';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { type ChartInks, useChartInks } from '../../ui/chart.ts';

const percent = (share: number): number => Math.round(share * 1000) / 10;

type Points = ChartData<'line', { x: number; y: number }[]>;

function dataOf(bands: readonly Band[], inks: ChartInks): Points {
  const line = (label: string, of: (band: Band) => number, more: object): Points['datasets'][number] => ({
    label,
    data: bands.map((band) => ({ x: band.hour, y: percent(of(band)) })),
    pointRadius: 0,
    borderWidth: 1,
    borderColor: inks.within,
    ...more,
  });
  const shade = (opacity: string): string => `${inks.within}${opacity}`;
  return {
    datasets: [
      line('5 of 100 are better', ({ soc }) => soc[4], { borderDash: [2, 3] }),
      line('25 of 100 are better', ({ soc }) => soc[3], {
        fill: '-1',
        backgroundColor: shade('22'),
        borderDash: [6, 3],
      }),
      line('Middle', ({ soc }) => soc[2], { fill: '-1', backgroundColor: shade('44'), borderWidth: 2.5 }),
      line('Worst 25 of 100', ({ soc }) => soc[1], {
        fill: '-1',
        backgroundColor: shade('44'),
        borderDash: [6, 3],
      }),
      line('Worst 5 of 100', ({ soc }) => soc[0], {
        fill: '-1',
        backgroundColor: shade('22'),
        borderDash: [2, 3],
      }),
      line('Dark', ({ dark }) => dark, { borderColor: inks.over, borderWidth: 2, borderDash: [10, 2, 2, 2] }),
    ],
  };
}

function optionsOf(inks: ChartInks, hours: number): ChartOptions<'line'> {
  return {
    responsive: true,
    maintainAspectRatio: false,
    interaction: { mode: 'index', intersect: false },
    scales: {
      x: {
        type: 'linear',
        min: 0,
        max: Math.max(1, hours),
        title: { display: true, text: 'hours since the grid went', color: inks.quiet },
        ticks: { color: inks.quiet },
        grid: { color: inks.rule },
      },
      y: {
        min: 0,
        max: 100,
        title: { display: true, text: '%', color: inks.quiet },
        ticks: { color: inks.quiet },
        grid: { color: inks.rule },
      },
    },
    plugins: { legend: { labels: { color: inks.ink, boxHeight: 0, boxWidth: 28 } } },
  };
}

/** Rows of the table: every so many hours are enough to read. */
const MOST_ROWS = 24;

/** How the bank stands hour by hour over all outages that last so long, as percentile bands, and how many of them are dark. */
export function NightBands({ bands }: { readonly bands: readonly Band[] }) {
  const inks = useChartInks();
  const last = bands.at(-1);
  const data = useMemo(() => dataOf(bands, inks), [bands, inks]);
  const options = useMemo(() => optionsOf(inks, last?.hour ?? 1), [inks, last]);
  if (last === undefined) return null;
  const step = Math.max(1, Math.ceil(bands.length / MOST_ROWS));
  return (
    <section>
      <h4 className="font-semibold">State of charge over time</h4>
      <p className="text-[13px] text-quiet">
        At each hour over the outages that last so long; those that are dark by then are counted beside it.
      </p>
      <div className="h-60">
        <Line
          data={data}
          options={options}
          role="img"
          aria-label={`State of charge over ${last.hour} hours as bands; after ${last.hour} hours the middle is ${percent(last.soc[2])} % and ${percent(last.dark)} % are dark.`}
        />
      </div>
      <details>
        <summary className="text-touch">As a table</summary>
        <div
          className="relative overflow-x-auto"
          tabIndex={0}
          role="region"
          aria-label="State of charge over time"
        >
          <table className="schedule text-[13px]">
            <thead>
              <tr className="text-left text-quiet">
                {[
                  'After, h',
                  'Outages',
                  'Worst 5 of 100',
                  'Worst 25',
                  'Middle',
                  'Best 25',
                  'Best 5',
                  'Dark',
                ].map((title) => (
                  <th key={title} scope="col" className="font-normal">
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {bands
                .filter(({ hour }) => hour % step === 0)
                .map(({ hour, nights, soc, dark }) => (
                  <tr key={hour} className="border-t border-rule tabular-nums">
                    <th scope="row" className="text-left font-normal">
                      {hour}
                    </th>
                    <td>{nights.toLocaleString('en')}</td>
                    {[...soc, dark].map((share, at) => (
                      <td key={at}>{percent(share)} %</td>
                    ))}
                  </tr>
                ))}
            </tbody>
          </table>
        </div>
      </details>
    </section>
  );
}
