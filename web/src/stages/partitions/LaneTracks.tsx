import { formatQuantity, type Line } from '@bastion/core';
import { memo } from 'react';
import { useLight } from '../../state/light.ts';
import type { Segment, Track } from './tracks.ts';

interface TrackViewProps {
  readonly track: Track;
  readonly scaleVa: number;
  readonly chosen: ReadonlySet<string>;
  /** What a proposal would put here. */
  readonly ghosts: readonly Segment[];
}

const place = (va: number, scale: number): string => `${Math.min(100, (100 * va) / scale).toFixed(2)}%`;

const Bar = memo(function Bar({
  circuitId,
  label,
  fromVa,
  toVa,
  spans,
  scaleVa,
  isChosen,
}: Segment & { readonly scaleVa: number; readonly isChosen: boolean }) {
  const isLit = useLight((store) => store.lit === circuitId);
  const light = useLight((store) => store.light);
  return (
    <div
      className="lane-bar"
      data-lit={isLit || isChosen}
      data-spans={spans}
      title={`${label}: ${formatQuantity(toVa - fromVa, 'VA')}${spans ? ' on each of its lines' : ''}`}
      style={{ left: place(fromVa, scaleVa), width: place(toVa - fromVa, scaleVa) }}
      onMouseEnter={() => light(circuitId)}
      onMouseLeave={() => light(undefined)}
    />
  );
});

function TrackView({ track, scaleVa, chosen, ghosts }: TrackViewProps) {
  const { line, othersVa, othersFromVa, segments, endVa, limitVa, surgeVa } = track;
  const isOver = limitVa !== undefined && endVa > limitVa;
  const words = `${line}: ${formatQuantity(endVa, 'VA')}${limitVa === undefined ? '' : ` of ${formatQuantity(limitVa, 'VA')}`}${surgeVa === undefined ? '' : `, ${formatQuantity(surgeVa, 'VA')} with the largest start`}`;
  return (
    <div className="grid grid-cols-[1.6rem_1fr_4.4rem] items-center gap-1.5">
      <span className="font-semibold">{line}</span>
      <div className="lane-track" data-over={isOver} role="img" aria-label={words} title={words}>
        {othersVa > 0 && (
          <div
            className="lane-others"
            title={`Other lanes of the same stack: ${formatQuantity(othersVa, 'VA')}`}
            style={{ left: place(othersFromVa, scaleVa), width: place(othersVa, scaleVa) }}
          />
        )}
        {segments.map((one) => (
          <Bar key={one.circuitId} {...one} scaleVa={scaleVa} isChosen={chosen.has(one.circuitId)} />
        ))}
        {ghosts.map((one) => (
          <div
            key={`ghost ${one.circuitId}`}
            className="lane-ghost"
            title={`Proposed: ${one.label}`}
            style={{ left: place(one.fromVa, scaleVa), width: place(one.toVa - one.fromVa, scaleVa) }}
          />
        ))}
        {surgeVa !== undefined && <div className="lane-surge" style={{ width: place(surgeVa, scaleVa) }} />}
        {limitVa !== undefined && <div className="lane-tick" style={{ left: place(limitVa, scaleVa) }} />}
      </div>
      <span className={`condensed text-right ${isOver ? 'font-semibold text-over' : 'text-quiet'}`}>
        {formatQuantity(endVa, 'VA')}
      </span>
    </div>
  );
}

interface LaneTracksProps {
  readonly tracks: readonly Track[];
  readonly ghostTracks: ReadonlyMap<Line, readonly Segment[]>;
  readonly scaleVa: number;
  readonly chosen: ReadonlySet<string>;
}

/** The lines of a lane, each as its own headroom strip: bars as long as their VA, and the limit as a tick. */
export function LaneTracks({ tracks, ghostTracks, scaleVa, chosen }: LaneTracksProps) {
  return (
    <div className="grid gap-1">
      {tracks.map((track) => (
        <TrackView
          key={track.line}
          track={track}
          scaleVa={scaleVa}
          chosen={chosen}
          ghosts={ghostTracks.get(track.line) ?? []}
        />
      ))}
    </div>
  );
}
