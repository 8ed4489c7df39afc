import { type RefObject, useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Height of a row of the table, px; the style sheet fixes it. */
export const ROW_PX = 30;
/** Up to so many rows all are drawn; beyond, only those near the window are. */
const DRAW_ALL = 160;
const BEYOND = 14;

interface RowWindow {
  readonly from: number;
  /** One past the last. */
  readonly to: number;
}

/** Which rows of a long table are near enough to what is seen of it to be drawn. */
export function useRowWindow(box: RefObject<HTMLElement | null>, count: number): RowWindow {
  const [seen, setSeen] = useState<RowWindow>({ from: 0, to: DRAW_ALL });
  useEffect(() => {
    const element = box.current;
    if (element === null || count <= DRAW_ALL) return undefined;
    const look = (): void => {
      // In steps of half the margin, so that a small scroll changes nothing.
      const step = BEYOND / 2;
      const first = Math.floor(element.scrollTop / ROW_PX / step) * step;
      const from = Math.max(0, first - BEYOND);
      const to = first + Math.ceil(element.clientHeight / ROW_PX) + 2 * BEYOND;
      setSeen((now) => (now.from === from && now.to === to ? now : { from, to }));
    };
    // Paper has no window: all rows are drawn before printing.
    const drawAll = (): void => flushSync(() => setSeen({ from: 0, to: count }));
    look();
    window.addEventListener('beforeprint', drawAll);
    window.addEventListener('afterprint', look);
    element.addEventListener('scroll', look, { passive: true });
    window.addEventListener('resize', look);
    return () => {
      element.removeEventListener('scroll', look);
      window.removeEventListener('resize', look);
      window.removeEventListener('beforeprint', drawAll);
      window.removeEventListener('afterprint', look);
    };
  }, [box, count]);
  return count <= DRAW_ALL ? { from: 0, to: count } : { from: seen.from, to: Math.min(count, seen.to) };
}

/** Rows to draw, with the empty stretches between them. The row in hand is always among them, so that the keyboard stays in it. */
export function drawnRows(
  { from, to }: RowWindow,
  count: number,
  inHand: number,
): { readonly index: number; readonly gapBefore: number }[] {
  const indices = Array.from({ length: Math.max(0, to - from) }, (_, at) => from + at);
  if (inHand < from && inHand >= 0) indices.unshift(inHand);
  else if (inHand >= to && inHand < count) indices.push(inHand);
  return indices.map((index, at) => ({ index, gapBefore: index - (indices[at - 1] ?? -1) - 1 }));
}
