import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import type { OpenCapture } from '../../../workers/wave.ts';

const LANE_PX = 130;
const LEAST_S = 0.002;
const STEP = 0.2;

interface View {
  readonly fromS: number;
  readonly toS: number;
}

const inkOf = (element: Element, name: string): string =>
  getComputedStyle(element).getPropertyValue(name).trim();

/** Draws one lane: the band between least and greatest sample of each column, so that no spike is lost. */
function drawLane(
  context: CanvasRenderingContext2D,
  pairs: Float64Array,
  most: number,
  top: number,
  inks: { readonly line: string; readonly rule: string },
): void {
  const half = LANE_PX / 2 - 6;
  const middle = top + LANE_PX / 2;
  const scale = most === 0 ? 0 : half / most;
  context.strokeStyle = inks.rule;
  context.beginPath();
  context.moveTo(0, middle);
  context.lineTo(pairs.length / 2, middle);
  context.stroke();
  context.strokeStyle = inks.line;
  context.beginPath();
  for (let column = 0; column < pairs.length / 2; column += 1) {
    const [low, high] = [pairs[2 * column] ?? NaN, pairs[2 * column + 1] ?? NaN];
    if (Number.isNaN(low) || Number.isNaN(high)) continue;
    context.moveTo(column + 0.5, middle - high * scale - 0.5);
    context.lineTo(column + 0.5, middle - low * scale + 0.5);
  }
  context.stroke();
}

/** The picture of a capture: all channels below each other, zoomed by wheel and keys, with two cursors for one's own measuring. */
export function WavePicture({ capture }: { readonly capture: OpenCapture }) {
  const { head } = capture;
  const canvas = useRef<HTMLCanvasElement>(null);
  const [width, setWidth] = useState(600);
  const [view, setView] = useState<View>({ fromS: 0, toS: head.lengthS });
  const [cursors, setCursors] = useState<readonly number[]>([]);
  const spanS = view.toS - view.fromS;

  useEffect(() => {
    const element = canvas.current?.parentElement;
    if (element === null || element === undefined) return undefined;
    const observer = new ResizeObserver(() => setWidth(Math.max(200, Math.floor(element.clientWidth))));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  useEffect(() => {
    let isStale = false;
    void capture.picture(view.fromS, view.toS, width).then((lanes) => {
      const element = canvas.current;
      const context = element?.getContext('2d');
      if (isStale || element === null || context === null || context === undefined) return;
      element.width = width;
      element.height = lanes.length * LANE_PX;
      const inks = { line: inkOf(element, '--ink'), rule: inkOf(element, '--rule') };
      lanes.forEach((pairs, index) =>
        drawLane(context, pairs, head.channels[index]?.most ?? 0, index * LANE_PX, inks),
      );
      context.strokeStyle = inkOf(element, '--touch');
      for (const time of cursors) {
        const x = Math.round(((time - view.fromS) / (view.toS - view.fromS)) * width) + 0.5;
        context.beginPath();
        context.moveTo(x, 0);
        context.lineTo(x, element.height);
        context.stroke();
      }
    });
    return () => {
      isStale = true;
    };
  }, [capture, view, width, cursors, head.channels]);

  const zoom = (factor: number, aroundS = (view.fromS + view.toS) / 2): void => {
    const span = Math.min(head.lengthS, Math.max(LEAST_S, spanS * factor));
    const share = (aroundS - view.fromS) / spanS;
    const fromS = Math.min(Math.max(0, aroundS - share * span), head.lengthS - span);
    setView({ fromS, toS: fromS + span });
  };
  const move = (shareOfView: number): void => {
    const fromS = Math.min(Math.max(0, view.fromS + shareOfView * spanS), head.lengthS - spanS);
    setView({ fromS, toS: fromS + spanS });
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const moves: Record<string, () => void> = {
      '+': () => zoom(1 - STEP),
      '-': () => zoom(1 / (1 - STEP)),
      ArrowLeft: () => move(-STEP),
      ArrowRight: () => move(STEP),
      Home: () => setView({ fromS: 0, toS: head.lengthS }),
    };
    const one = moves[event.key];
    if (one === undefined) return;
    event.preventDefault();
    one();
  };
  const onPointerDown = (event: PointerEvent<HTMLCanvasElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const time = view.fromS + ((event.clientX - box.left) / box.width) * spanS;
    setCursors((now) => (now.length === 2 ? [time] : [...now, time]));
  };
  const [a, b] = cursors;
  return (
    <figure>
      <div className="relative">
        <canvas
          ref={canvas}
          tabIndex={0}
          role="img"
          aria-label={`${head.channels.length} channels over ${head.lengthS.toFixed(3)} s. Plus and minus zoom, arrows move, Home shows all; the table below holds what is measured.`}
          className="block w-full touch-none border border-rule"
          style={{ height: head.channels.length * LANE_PX }}
          onKeyDown={onKeyDown}
          onPointerDown={onPointerDown}
          onWheel={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            zoom(
              event.deltaY > 0 ? 1 / (1 - STEP) : 1 - STEP,
              view.fromS + ((event.clientX - box.left) / box.width) * spanS,
            );
          }}
        />
        {head.channels.map(({ id, unit, most }, index) => (
          <span
            key={`${id} ${index}`}
            className="pointer-events-none absolute left-1 rounded-sm bg-sheet px-1 text-[12px]"
            style={{ top: index * LANE_PX + 2 }}
          >
            {id}, ±{most.toPrecision(3)} {unit}
          </span>
        ))}
      </div>
      <figcaption className="mt-1 flex flex-wrap items-center gap-2 text-[13px] text-quiet">
        <span>
          {(view.fromS * 1000).toFixed(1)} to {(view.toS * 1000).toFixed(1)} ms
        </span>
        <button type="button" className="button" onClick={() => zoom(1 - STEP)}>
          Closer
        </button>
        <button type="button" className="button" onClick={() => zoom(1 / (1 - STEP))}>
          Further
        </button>
        <button type="button" className="button" onClick={() => setView({ fromS: 0, toS: head.lengthS })}>
          All
        </button>
        {a !== undefined && b !== undefined ? (
          <output className="font-semibold text-ink">
            Between the cursors: {(Math.abs(b - a) * 1000).toFixed(2)} ms, {(1 / Math.abs(b - a)).toFixed(2)}{' '}
            Hz
          </output>
        ) : (
          <span>Two taps set cursors.</span>
        )}
      </figcaption>
    </figure>
  );
}
