import type { TrendPoint } from './useLive.ts';

const WIDTH = 120;
const HEIGHT = 28;
const SPAN_MS = 120_000;

/** The last two minutes of a figure, to see whether it holds still. */
export function Trend({ points, unit }: { readonly points: readonly TrendPoint[]; readonly unit: string }) {
  const last = points.at(-1);
  if (last === undefined || points.length < 2) return null;
  const values = points.map(({ value }) => value);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  // A band of a hundredth of the figure at least: noise is no movement.
  const half = Math.max((high - low) / 2, Math.abs(last.value) * 0.005, 1e-6);
  const middle = (low + high) / 2;
  const x = (atMs: number): number => WIDTH - ((last.atMs - atMs) / SPAN_MS) * WIDTH;
  const y = (value: number): number => HEIGHT / 2 - ((value - middle) / half) * (HEIGHT / 2 - 2);
  const path = points
    .map(({ atMs, value }, index) => `${index === 0 ? 'M' : 'L'}${x(atMs).toFixed(1)} ${y(value).toFixed(1)}`)
    .join(' ');
  const from = low.toFixed(2);
  const to = high.toFixed(2);
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`In the last two minutes from ${from} to ${to} ${unit}`}
      className="shrink-0"
    >
      <title>{`${from} to ${to} ${unit} in the last two minutes`}</title>
      <path d={path} fill="none" stroke="currentColor" strokeWidth={1.5} />
    </svg>
  );
}
