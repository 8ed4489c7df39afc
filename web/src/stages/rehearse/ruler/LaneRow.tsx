import { formatNumber } from '@bastion/core';
import type { Lane } from './lanes.ts';
import { pathOf, type Series, valueAt } from './series.ts';
import type { TimeView } from './timeScale.ts';

type Figures = Extract<Lane, { kind: 'figures' }>;
type Spans = Extract<Lane, { kind: 'spans' }>;

const shareOf = ({ fromS, toS }: TimeView, seconds: number): number => (seconds - fromS) / (toS - fromS);

function Key({ label, ink, dash }: Pick<Series, 'label' | 'ink' | 'dash'>) {
  return (
    <span className="mr-2 inline-flex items-center gap-1 whitespace-nowrap">
      <svg width="22" height="6" aria-hidden="true">
        <path d="M0 3H22" stroke={ink} strokeWidth="2" strokeDasharray={dash} />
      </svg>
      {label}
    </span>
  );
}

/** What a lane of figures shows at a moment, in words. */
export const figuresAt = ({ series, unit }: Figures, seconds: number): string =>
  series
    .flatMap((one) => {
      const value = valueAt(one, seconds);
      return value === undefined
        ? []
        : [`${one.label} ${formatNumber(Math.round(value * 100) / 100)} ${unit}`];
    })
    .join(', ');

/** What is there at a moment, in words. */
export const spansAt = ({ rows }: Spans, seconds: number): string =>
  rows
    .filter(({ spans }) => spans.some(({ fromS, toS }) => seconds >= fromS && seconds < toS))
    .map(({ label }) => label)
    .join(', ');

function Drawing({ lane, view }: { readonly lane: Figures; readonly view: TimeView }) {
  const { series, most, least = 0, limit } = lane;
  const limitY = limit === undefined ? undefined : 100 - (Math.min(limit.value, most) / most) * 100;
  return (
    <svg
      viewBox="0 0 1000 100"
      preserveAspectRatio="none"
      className="block h-16 w-full border border-rule"
      aria-hidden="true"
    >
      {limitY !== undefined && (
        <path
          d={`M0 ${limitY}H1000`}
          stroke="var(--color-over)"
          strokeDasharray="4 4"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {series.map((one) => (
        <path
          key={one.label}
          d={pathOf(one, view, most, least)}
          fill="none"
          stroke={one.ink}
          strokeWidth="1.75"
          strokeDasharray={one.dash}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </svg>
  );
}

function Bars({ lane, view }: { readonly lane: Spans; readonly view: TimeView }) {
  return lane.rows.map(({ label, spans }) => (
    <div key={label} className="relative mb-0.5 h-5 overflow-hidden border border-rule text-[12px]">
      {spans.map(({ fromS, toS }) => {
        const from = Math.max(0, shareOf(view, fromS));
        const to = Math.min(1, shareOf(view, toS));
        return to <= from ? null : (
          <span
            key={fromS}
            aria-hidden="true"
            className="absolute inset-y-0 border-x border-within bg-within-wash"
            style={{ left: `${from * 100}%`, width: `${Math.max(0.2, (to - from) * 100)}%` }}
          />
        );
      })}
      <span className="relative px-1">{label}</span>
    </div>
  ));
}

/** One lane under the ruler: its name, what it shows at the cursor, and its drawing. */
export function LaneRow({
  lane,
  view,
  cursorS,
}: {
  readonly lane: Lane;
  readonly view: TimeView;
  readonly cursorS: number;
}) {
  const words = lane.kind === 'figures' ? figuresAt(lane, cursorS) : spansAt(lane, cursorS);
  const place = shareOf(view, cursorS);
  return (
    <div className="grid gap-x-3 md:grid-cols-[13rem_1fr]">
      <div className="text-[13px]">
        <span className="font-semibold">{lane.title}</span>
        <span className="block text-quiet">
          {lane.kind === 'figures' && lane.series.map((one) => <Key key={one.label} {...one} />)}
          {lane.kind === 'figures' && lane.limit !== undefined && (
            <Key label={lane.limit.label} ink="var(--color-over)" dash="4 4" />
          )}
        </span>
      </div>
      <div>
        <div className="relative">
          {lane.kind === 'figures' ? <Drawing lane={lane} view={view} /> : <Bars lane={lane} view={view} />}
          {place >= 0 && place <= 1 && (
            <span
              aria-hidden="true"
              className="pointer-events-none absolute inset-y-0 w-px bg-touch"
              style={{ left: `${place * 100}%` }}
            />
          )}
        </div>
        <p className="text-[12px] text-quiet tabular-nums">
          {words !== '' ? words : lane.kind === 'spans' ? 'none' : 'not told'}
        </p>
      </div>
    </div>
  );
}
