import { useEffect, useState } from 'react';
import { AHEAD_S, held, showing, type TimeView, zoomed } from './timeScale.ts';

/** Steps of the cursor, and how long playing through a view takes. */
const STEPS = 100;
const PLAY_MS = 10_000;

export interface Ruler {
  readonly view: TimeView;
  readonly cursorS: number;
  readonly isPlaying: boolean;
  /** Looks at a part, or at the whole, however long that becomes. */
  readonly show: (view: TimeView | 'whole') => void;
  readonly zoom: (times: number) => void;
  readonly moveTo: (seconds: number) => void;
  readonly step: (steps: number) => void;
  readonly play: (isPlaying: boolean) => void;
}

/** Which part of the time is looked at, and where the cursor stands. */
export function useRuler(wholeS: number, first: TimeView | 'whole'): Ruler {
  const [wanted, setView] = useState(first);
  const [cursor, setCursor] = useState(0);
  const [isPlaying, play] = useState(false);
  const view = wanted === 'whole' ? { fromS: 0, toS: wholeS } : held(wanted, wholeS);
  const cursorS = Math.min(cursor, wholeS);
  const { fromS, toS } = view;
  useEffect(() => {
    if (!isPlaying) return;
    let last = performance.now();
    let frame = requestAnimationFrame(function next(now) {
      const passed = now - last;
      last = now;
      setCursor((at) => Math.min(toS, Math.max(at, fromS) + ((toS - fromS) * passed) / PLAY_MS));
      frame = requestAnimationFrame(next);
    });
    return () => cancelAnimationFrame(frame);
  }, [isPlaying, fromS, toS]);
  // At the end of what is looked at there is nothing more to play.
  if (isPlaying && cursorS >= toS) play(false);
  const moveTo = (seconds: number): void => {
    const at = Math.min(Math.max(seconds, -AHEAD_S), wholeS);
    setCursor(at);
    if (at < fromS || at > toS) setView(showing(view, at, wholeS));
  };
  return {
    view,
    cursorS,
    isPlaying,
    show: (one) => {
      setView(one);
      if (one !== 'whole')
        setCursor((at) => (at >= one.fromS && at <= one.toS ? at : Math.max(0, one.fromS)));
    },
    zoom: (times) => setView(zoomed(view, times, Math.min(Math.max(cursorS, fromS), toS), wholeS)),
    moveTo,
    step: (steps) => moveTo(cursorS + ((toS - fromS) * steps) / STEPS),
    play: (isOn) => {
      if (isOn && cursorS >= toS) setCursor(fromS);
      play(isOn);
    },
  };
}
