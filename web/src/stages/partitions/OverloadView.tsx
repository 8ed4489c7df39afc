import {
  allowedMultiple,
  capabilityWithout,
  type CompiledStack,
  formatQuantity,
  islandBoard,
  type LevelTime,
  levelTimes,
  type Line as LineName,
  type SurgeStep,
} from '@bastion/core';
import type { ChartOptions } from 'chart.js';
import { useMemo, useState } from 'react';
import { Line } from 'react-chartjs-2';
import { useOpenJob } from '../../state/job.ts';
import { type ChartInks, useChartInks } from '../../ui/chart.ts';
import { linesOf } from './tracks.ts';

/** From the shortest inrush worth drawing to what counts as continuous, s. */
const TIMES_S = [0.01, 0.03, 0.1, 0.2, 0.3, 0.5, 1, 2, 3, 5, 10, 20, 30, 60, 120, 300, 600];
const LONGEST_S = 600;

interface Envelope {
  readonly label: string;
  readonly points: readonly LevelTime[];
  readonly dash: number[];
}

function envelopesOf(compiled: CompiledStack, at: number): Envelope[] {
  const found = islandBoard(compiled);
  if (!found.known) return [];
  const board = found.value;
  const make = (label: string, steps: readonly SurgeStep[], dash: number[]): Envelope[] =>
    steps.length === 0 ? [] : [{ label, points: levelTimes(steps), dash }];
  const largest = [...(board.starts.knownPart[at] ?? [])].sort(
    (a, b) => Math.max(...b.steps.map((one) => one.va)) - Math.max(...a.steps.map((one) => one.va)),
  )[0];
  return [
    ...make('Largest start', largest?.steps ?? [], [2, 3]),
    ...make('Cold pickup', board.coldPickup.knownPart[at] ?? [], []),
    ...(board.isStaggered ? make('Staggered', board.staggered.knownPart[at] ?? [], [7, 3]) : []),
  ];
}

function options(inks: ChartInks): ChartOptions<'line'> {
  const grid = { color: inks.rule };
  const seconds = [0.01, 0.1, 1, 10, 100];
  return {
    responsive: true,
    maintainAspectRatio: false,
    scales: {
      x: {
        type: 'logarithmic',
        min: 0.01,
        max: LONGEST_S,
        title: { display: true, text: 'time at or above, s', color: inks.quiet },
        ticks: {
          color: inks.quiet,
          autoSkip: false,
          callback: (value) => (seconds.includes(Number(value)) ? String(value) : ''),
        },
        grid,
      },
      y: {
        type: 'logarithmic',
        title: { display: true, text: 'kVA', color: inks.quiet },
        ticks: {
          color: inks.quiet,
          maxTicksLimit: 8,
          callback: (value) => (/^[125]/.test(Number(value).toExponential()) ? String(value) : ''),
        },
        grid,
      },
    },
    plugins: { legend: { labels: { color: inks.ink, boxHeight: 0, boxWidth: 26 } } },
  };
}

/** Surge envelopes of one line against what its inverters allow for how long, both axes logarithmic. */
export function OverloadView({ compiled }: { readonly compiled: CompiledStack }) {
  const { analysis } = useOpenJob();
  const inks = useChartInks();
  const lines = linesOf(analysis);
  const [line, setLine] = useState<LineName>('L1');
  const at = Math.max(0, lines.indexOf(line));
  const capability = capabilityWithout(compiled);
  const limitVa = capability.known ? capability.value.perLineVa[at] : undefined;
  const curve = compiled.type.known ? compiled.type.value.overloadCurve : undefined;
  const envelopes = useMemo(() => envelopesOf(compiled, at), [compiled, at]);
  if (limitVa === undefined || curve === undefined)
    return <p className="text-unknown">The overload curve appears once the stack is known.</p>;
  const allowed = [...new Set([...TIMES_S, ...curve.map((point) => point.maxS)])]
    .sort((a, b) => a - b)
    .map((x) => ({ x, y: (limitVa * allowedMultiple(curve, x)) / 1000 }));
  const series = envelopes.map(({ label, points, dash }) => ({
    label,
    data: points.map(({ va, timeS }) => ({ x: Math.min(timeS, LONGEST_S), y: va / 1000 })),
    borderColor: inks.ink,
    backgroundColor: inks.ink,
    borderDash: dash,
    borderWidth: 1.8,
    pointRadius: 3,
    stepped: 'before' as const,
  }));
  const words = envelopes
    .map(({ label, points }) => `${label} up to ${formatQuantity(points[0]?.va ?? 0, 'VA')}`)
    .join(', ');
  return (
    <section aria-label={`Overload curve of ${compiled.stack.name}`}>
      <div className="flex items-center gap-2">
        <h3 className="flex-1 text-[13px] font-semibold">Surge against the overload curve</h3>
        <label className="flex items-center gap-1">
          <span className="sr-only">Line</span>
          <select
            className="input w-16!"
            value={lines[at] ?? 'L1'}
            onChange={(event) => setLine(lines.find((one) => one === event.target.value) ?? line)}
          >
            {lines.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
      </div>
      <div className="h-52">
        <Line
          data={{
            datasets: [
              {
                label: 'Allowed',
                data: allowed,
                borderColor: inks.over,
                backgroundColor: inks.over,
                borderWidth: 2.4,
                pointRadius: 0,
              },
              ...series,
            ],
          }}
          options={options(inks)}
          role="img"
          aria-label={`Line ${lines[at] ?? ''}: continuous limit ${formatQuantity(limitVa, 'VA')}. ${words}.`}
        />
      </div>
    </section>
  );
}
