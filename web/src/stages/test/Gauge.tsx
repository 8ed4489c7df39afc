import { edgeFigure, type ReadingSpec } from '@bastion/core';

interface Span {
  readonly from: number;
  readonly to: number;
}

/** What the gauge spans: the bands and the reading, with some room on either side. */
function spanOf(spec: ReadingSpec, value: number | undefined): Span {
  const marks = [
    spec.expected?.low,
    spec.expected?.high,
    spec.abort?.low,
    spec.abort?.high,
    spec.nominal,
    value,
  ].filter((one) => one !== undefined);
  const low = Math.min(...marks);
  const high = Math.max(...marks);
  const room = (high - low) * 0.18 || Math.abs(high) * 0.2 || 1;
  return { from: low - room, to: high + room };
}

/** The expected band as a segment of a gauge, with the reading landing in it or out of it. */
export function Gauge({ spec, value }: { readonly spec: ReadingSpec; readonly value: number | undefined }) {
  if (spec.expected === undefined) return null;
  const span = spanOf(spec, value);
  const at = (one: number): number => (100 * (one - span.from)) / (span.to - span.from);
  const from = spec.expected.low === undefined ? 0 : at(spec.expected.low);
  const to = spec.expected.high === undefined ? 100 : at(spec.expected.high);
  const inside =
    value !== undefined &&
    (spec.expected.low ?? -Infinity) <= value &&
    value <= (spec.expected.high ?? Infinity);
  return (
    <div aria-hidden="true">
      <div className="relative h-6 rounded-sm border border-rule bg-ground">
        <div
          className="absolute inset-y-0 bg-within-wash"
          style={{ left: `${from}%`, width: `${to - from}%`, borderInline: '2px solid var(--within)' }}
        />
        {[spec.abort?.low, spec.abort?.high].map(
          (limit, index) =>
            limit !== undefined && (
              <div
                key={index}
                className="absolute inset-y-0 border-l-2 border-dashed border-over"
                style={{ left: `${at(limit)}%` }}
              />
            ),
        )}
        {value !== undefined && (
          <div
            className={`absolute -inset-y-1 w-1.5 -translate-x-1/2 ${inside ? 'bg-within' : 'bg-over'}`}
            style={{ left: `${at(value)}%` }}
          />
        )}
      </div>
      <div className="condensed relative h-4 text-[11.5px] text-quiet">
        {spec.expected.low !== undefined && spec.expected.low > span.from && (
          <span className="absolute -translate-x-1/2" style={{ left: `${from}%` }}>
            {edgeFigure(spec, spec.expected.low)}
          </span>
        )}
        {spec.expected.high !== undefined && (
          <span className="absolute -translate-x-1/2" style={{ left: `${to}%` }}>
            {edgeFigure(spec, spec.expected.high)}
          </span>
        )}
      </div>
    </div>
  );
}
