import { type KeyboardEvent, type PointerEvent, type WheelEvent, useEffect, useRef, useState } from 'react';

interface View {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
}

const LEAST = 0.15;
/** Smaller than this its words cannot be read. */
const READABLE = 0.7;
const MOST = 4;
const clamp = (zoom: number): number => Math.min(MOST, Math.max(LEAST, zoom));

/** What part of a drawing is in view: dragged, wheeled, or moved by keys. Zoom 0 fits the whole. */
export function useView(size: { readonly widthPx: number; readonly heightPx: number }) {
  const frame = useRef<SVGSVGElement>(null);
  const [view, setView] = useState<View>();
  const drag = useRef<{ x: number; y: number; moved: number }>(undefined);
  const fit = (): View => {
    const box = frame.current?.getBoundingClientRect();
    const width = box?.width ?? 800;
    const height = box?.height ?? 480;
    const zoom = clamp(Math.min(width / (size.widthPx + 24), height / (size.heightPx + 24), 1.4));
    return { x: (size.widthPx - width / zoom) / 2, y: (size.heightPx - height / zoom) / 2, zoom };
  };
  /** What is seen first: all of it where that can be read, else its upper middle at a size that can. */
  const first = (): View => {
    const all = fit();
    if (all.zoom >= READABLE) return all;
    const width = frame.current?.getBoundingClientRect().width ?? 800;
    return { x: (size.widthPx - width / READABLE) / 2, y: -12, zoom: READABLE };
  };
  const now = (): View => view ?? first();
  const isUnset = view === undefined;
  // All of it is drawn first: to measure before that picture would lay out the whole page a second time.
  useEffect(() => {
    if (!isUnset) return;
    const measured = requestAnimationFrame(() => {
      if (frame.current !== null) setView(first());
    });
    return () => cancelAnimationFrame(measured);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the drawing first stands: after that the view is whoever's who looks
  }, [isUnset]);
  const zoomBy = (factor: number, at?: { x: number; y: number }): void => {
    const box = frame.current?.getBoundingClientRect();
    const old = now();
    const zoom = clamp(old.zoom * factor);
    const px = at === undefined || box === undefined ? (box?.width ?? 0) / 2 : at.x - box.left;
    const py = at === undefined || box === undefined ? (box?.height ?? 0) / 2 : at.y - box.top;
    setView({ x: old.x + px / old.zoom - px / zoom, y: old.y + py / old.zoom - py / zoom, zoom });
  };
  const moveBy = (dx: number, dy: number): void => {
    const old = now();
    setView({ ...old, x: old.x + dx / old.zoom, y: old.y + dy / old.zoom });
  };
  return {
    frame,
    view,
    fit: () => setView(fit()),
    zoomBy,
    centreOn: (x: number, y: number): void => {
      const box = frame.current?.getBoundingClientRect();
      const { zoom } = now();
      const near = Math.max(zoom, 0.8);
      setView({ x: x - (box?.width ?? 0) / near / 2, y: y - (box?.height ?? 0) / near / 2, zoom: near });
    },
    /** Whether the last press was a drag and not a pick. */
    wasDragged: (): boolean => (drag.current?.moved ?? 0) > 4,
    handlers: {
      onPointerDown: (event: PointerEvent): void => {
        drag.current = { x: event.clientX, y: event.clientY, moved: 0 };
      },
      onPointerMove: (event: PointerEvent): void => {
        if (drag.current === undefined || event.buttons === 0) return;
        const dx = event.clientX - drag.current.x;
        const dy = event.clientY - drag.current.y;
        drag.current = {
          x: event.clientX,
          y: event.clientY,
          moved: drag.current.moved + Math.abs(dx) + Math.abs(dy),
        };
        moveBy(-dx, -dy);
      },
      onWheel: (event: WheelEvent): void => {
        if (event.ctrlKey || event.metaKey)
          zoomBy(event.deltaY < 0 ? 1.15 : 1 / 1.15, { x: event.clientX, y: event.clientY });
      },
      onKeyDown: (event: KeyboardEvent): void => {
        const step = 60;
        const keys: Record<string, () => void> = {
          ArrowLeft: () => moveBy(-step, 0),
          ArrowRight: () => moveBy(step, 0),
          ArrowUp: () => moveBy(0, -step),
          ArrowDown: () => moveBy(0, step),
          '+': () => zoomBy(1.25),
          '=': () => zoomBy(1.25),
          '-': () => zoomBy(0.8),
          '0': () => setView(fit()),
        };
        const act = keys[event.key];
        if (act === undefined || event.target !== frame.current) return;
        event.preventDefault();
        act();
      },
    },
  };
}
