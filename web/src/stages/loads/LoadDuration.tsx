import {
  capabilityWithout,
  dayLevels,
  dayProfile,
  formatQuantity,
  type Installation,
  type MeterSummary,
  profileDurationW,
  rehearsedDurationW,
} from '@bastion/core';
import type { ChartData, ChartOptions } from 'chart.js';
import { FileClock, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Line } from 'react-chartjs-2';
import { useJob, useOpenJob } from '../../state/job.ts';
import { type ChartInks, useChartInks } from '../../ui/chart.ts';
import { MeterDialog } from './MeterDialog.tsx';

const DASHES: Record<string, number[]> = { winter: [], spring: [6, 3], summer: [2, 3], autumn: [8, 3, 2, 3] };

/** What all stacks together may give for long, W; undefined while it is not known of each. */
function stackLimitW(installation: Installation): number | undefined {
  let sum = 0;
  for (const compiled of installation.stacks) {
    const found = capabilityWithout(compiled);
    if (!found.known) return undefined;
    sum += found.value.totalW;
  }
  return sum > 0 ? sum : undefined;
}

const kilo = (watts: number): number => watts / 1000;

function options(inks: ChartInks, xTitle: string, most: number, isBare: boolean): ChartOptions<'line'> {
  return {
    responsive: true,
    maintainAspectRatio: false,
    interaction: { mode: 'nearest', axis: 'x', intersect: false },
    scales: {
      x: {
        type: 'linear',
        min: 0,
        max: most,
        title: { display: true, text: xTitle, color: inks.quiet },
        ticks: { color: inks.quiet },
        grid: { color: inks.rule },
      },
      y: {
        beginAtZero: true,
        title: { display: true, text: 'kW', color: inks.quiet },
        ticks: { color: inks.quiet },
        grid: { color: inks.rule },
      },
    },
    plugins: {
      legend: { display: !isBare, labels: { color: inks.ink, boxHeight: 0, boxWidth: 28 } },
    },
  };
}

function durationData(
  design: ReturnType<typeof useOpenJob>['design'],
  limitW: number | undefined,
  inks: ChartInks,
): ChartData<'line', { x: number; y: number }[]> {
  const line = (label: string, watts: readonly number[], colour: string, dash: number[]) => ({
    label,
    data: watts.map((one, x) => ({ x, y: kilo(one) })),
    borderColor: colour,
    borderDash: dash,
    borderWidth: 2,
    pointRadius: 0,
  });
  return {
    datasets: [
      line('Estimated', profileDurationW(dayProfile(design.circuits)), inks.ink, [5, 4]),
      line('Rehearsed, with chance', rehearsedDurationW(dayLevels(design.circuits)), inks.touch, [2, 3]),
      ...design.meters.map((meter) => line(`${meter.name}, measured`, meter.durationW, inks.within, [])),
      ...(limitW === undefined
        ? []
        : [
            {
              ...line('Stack limit', [], inks.over, [2, 2]),
              data: [
                { x: 0, y: kilo(limitW) },
                { x: 100, y: kilo(limitW) },
              ],
            },
          ]),
    ],
  };
}

function Seasons({ meter, inks }: { readonly meter: MeterSummary; readonly inks: ChartInks }) {
  const data: ChartData<'line', { x: number; y: number }[]> = {
    datasets: meter.seasons.map(({ season, hourW }) => ({
      label: season,
      data: hourW.flatMap((watts, x) => (watts === null ? [] : [{ x, y: kilo(watts) }])),
      borderColor: inks.ink,
      borderDash: DASHES[season] ?? [],
      borderWidth: 1.8,
      pointRadius: 0,
    })),
  };
  const words = meter.seasons
    .map(({ season, hourW }) => {
      const known = hourW.filter((one) => one !== null);
      return `${season} up to ${formatQuantity(Math.max(0, ...known), 'W')}`;
    })
    .join(', ');
  return (
    <div className="h-44">
      <Line
        data={data}
        options={options(inks, 'hour of the day', 23, false)}
        role="img"
        aria-label={`Mean day of each season: ${words}`}
      />
    </div>
  );
}

function MeterWords({ meter, crest }: { readonly meter: MeterSummary; readonly crest: number }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const scope =
    meter.scope === 'building'
      ? 'the whole building'
      : (design.partitions.find((one) => one.id === meter.scope)?.name ?? meter.scope);
  return (
    <div className="flex items-start gap-2 border-t border-rule py-1">
      <p className="flex-1">
        <strong>{meter.name}</strong> of {scope}: peak {formatQuantity(meter.peakW, 'W')} over{' '}
        {meter.intervalMin} minutes on {new Date(meter.peakAt).toLocaleDateString()}; limits use{' '}
        {formatQuantity(meter.peakW * crest, 'W')}.{' '}
        <span className="text-quiet">
          {meter.readings} readings{meter.missing > 0 && `, ${meter.missing} missing`}, from {meter.source}.
        </span>
      </p>
      {canEdit && (
        <button
          type="button"
          className="button button-quiet"
          aria-label={`Remove ${meter.name}`}
          onClick={() =>
            change(
              `Remove ${meter.name}`,
              (draft) => void (draft.meters = draft.meters.filter((one) => one.id !== meter.id)),
            )
          }
        >
          <Trash2 size={14} aria-hidden="true" />
        </button>
      )}
    </div>
  );
}

/** How long the load reaches what power, estimated and measured, with what the stack may give as a line through it. */
export function LoadDuration() {
  const { design, analysis, canEdit } = useOpenJob();
  const inks = useChartInks();
  const [isOpen, setIsOpen] = useState(false);
  const limitW = useMemo(() => stackLimitW(analysis.installation), [analysis.installation]);
  const data = useMemo(() => durationData(design, limitW, inks), [design, limitW, inks]);
  const missing = useMemo(() => dayProfile(design.circuits).missing.length, [design.circuits]);
  const crest = analysis.installation.defaults.meterCrest.value;
  const peak = Math.max(0, ...(data.datasets[0]?.data.map((point) => point.y) ?? []));
  const limitWords =
    limitW === undefined ? 'stack limit not known' : `stack limit ${formatQuantity(limitW, 'W')}`;
  return (
    <section className="sheet p-3" aria-label="Load and time">
      <div className="flex items-center justify-between gap-2">
        <h3 className="font-semibold">Load-duration, whole building</h3>
        {canEdit && (
          <button type="button" className="button" onClick={() => setIsOpen(true)}>
            <FileClock size={15} aria-hidden="true" /> Meter readings in
          </button>
        )}
      </div>
      <div className="h-56">
        <Line
          data={data}
          options={options(inks, '% of the time', 100, false)}
          role="img"
          aria-label={`Load-duration curve. Estimated peak ${formatQuantity(peak * 1000, 'W')}; ${limitWords}.`}
        />
      </div>
      {missing > 0 && (
        <p className="text-unknown">The estimate leaves out {missing} figures that are not known.</p>
      )}
      {design.meters.map((meter) => (
        <div key={meter.id}>
          <MeterWords meter={meter} crest={crest} />
          <Seasons meter={meter} inks={inks} />
        </div>
      ))}
      {design.meters.length === 0 && (
        <p className="text-quiet">
          No meter readings yet. With them the continuous limits of the building or a board use what was
          measured.
        </p>
      )}
      <MeterDialog isOpen={isOpen} onClose={() => setIsOpen(false)} />
    </section>
  );
}
