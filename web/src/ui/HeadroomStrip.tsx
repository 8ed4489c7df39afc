import type { State } from '@bastion/core';

/** Where the limit stands on every strip, as a share of its width: the same x everywhere, so that a column lines up. */
const TICK_AT = 0.72;
const FULL = 0.985;

export interface StripProps {
  readonly state: State;
  /** Load over limit; undefined where either is not known. */
  readonly ratio: number | undefined;
  /** Surge over the continuous limit, drawn as a whisker. */
  readonly whisker?: number | undefined;
}

/** An overrun of a few percent still has to be seen to run past the tick. */
const LEAST_OVERRUN = 1.12;

const place = (ratio: number): string =>
  `${(Math.min(Math.max(ratio, 0) * TICK_AT, FULL) * 100).toFixed(2)}%`;

/** One limit drawn: fill for the load, tick for the limit, whisker for the surge. Words beside it say the same. */
export function HeadroomStrip({ state, ratio, whisker }: StripProps) {
  return (
    <div className="strip" data-state={state} aria-hidden="true">
      {whisker !== undefined && <div className="strip-whisker moves" style={{ width: place(whisker) }} />}
      <div
        className="strip-fill moves"
        style={{
          width:
            ratio === undefined ? '30%' : place(state === 'over' ? Math.max(ratio, LEAST_OVERRUN) : ratio),
        }}
      />
      <div className="strip-tick" style={{ left: `${TICK_AT * 100}%` }} />
    </div>
  );
}
