import { ChevronFirst, ChevronLast, Pause, Play, ZoomIn, ZoomOut } from 'lucide-react';
import type { KeyboardEvent, PointerEvent } from 'react';
import type { Lane } from './lanes.ts';
import { LaneRow } from './LaneRow.tsx';
import { AHEAD_S, marksOf, timeWords, type TimeView } from './timeScale.ts';
import type { Ruler } from './useRuler.ts';

/** Something that happens, at its moment. */
export interface Mark {
  readonly atS: number;
  readonly sentence: string;
  readonly isBad: boolean;
}

const BIG_STEP = 10;
const TWICE = 2;
/** Further right than this the words of a mark have no room. */
const LAST_PLACE = 0.9;

function Presets({ ruler, wholeS }: { readonly ruler: Ruler; readonly wholeS: number }) {
  const parts: readonly (TimeView & { readonly title: string })[] = [
    { title: 'First 0.2 s', fromS: -AHEAD_S, toS: 0.2 },
    { title: 'First 10 s', fromS: -AHEAD_S, toS: 10 },
    { title: 'First hour', fromS: 0, toS: 3600 },
  ];
  return (
    <>
      {parts
        .filter(({ toS }) => toS < wholeS)
        .map(({ title, ...view }) => (
          <button key={title} type="button" className="button" onClick={() => ruler.show(view)}>
            {title}
          </button>
        ))}
      <button type="button" className="button" onClick={() => ruler.show('whole')}>
        All of it
      </button>
    </>
  );
}

function Controls({
  ruler,
  wholeS,
  marks,
}: {
  readonly ruler: Ruler;
  readonly wholeS: number;
  readonly marks: readonly Mark[];
}) {
  const { cursorS, isPlaying } = ruler;
  const before = marks.findLast(({ atS }) => atS < cursorS - 1e-9);
  const after = marks.find(({ atS }) => atS > cursorS + 1e-9);
  const icon = { size: 15, 'aria-hidden': true } as const;
  return (
    <div className="no-print flex flex-wrap items-center gap-1.5">
      <Presets ruler={ruler} wholeS={wholeS} />
      <button type="button" className="button" onClick={() => ruler.zoom(1 / TWICE)} aria-label="Zoom in">
        <ZoomIn {...icon} />
      </button>
      <button type="button" className="button" onClick={() => ruler.zoom(TWICE)} aria-label="Zoom out">
        <ZoomOut {...icon} />
      </button>
      <button
        type="button"
        className="button"
        disabled={before === undefined}
        onClick={() => before !== undefined && ruler.moveTo(before.atS)}
      >
        <ChevronFirst {...icon} /> Event before
      </button>
      <button
        type="button"
        className="button"
        disabled={after === undefined}
        onClick={() => after !== undefined && ruler.moveTo(after.atS)}
      >
        Event after <ChevronLast {...icon} />
      </button>
      <button type="button" className="button" onClick={() => ruler.play(!isPlaying)}>
        {isPlaying ? <Pause {...icon} /> : <Play {...icon} />} {isPlaying ? 'Hold' : 'Play'}
      </button>
    </div>
  );
}

/** One ruler from milliseconds to days, with everything that has a time under it. The cursor is moved by pointer or keys. */
export function RulerView({
  ruler,
  wholeS,
  lanes,
  marks,
  note,
}: {
  readonly ruler: Ruler;
  readonly wholeS: number;
  readonly note: string | undefined;
  readonly lanes: readonly Lane[];
  readonly marks: readonly Mark[];
}) {
  const { view, cursorS } = ruler;
  const share = (seconds: number): number => (seconds - view.fromS) / (view.toS - view.fromS);
  const isInView = (seconds: number): boolean => seconds >= view.fromS && seconds <= view.toS;
  const now = marks.findLast(({ atS }) => atS <= cursorS + 1e-9);
  const words = `${timeWords(cursorS)} after the grid went${now === undefined ? '' : `. ${now.sentence}`}`;
  const toPointer = (event: PointerEvent<HTMLDivElement>): void => {
    const { left, width } = event.currentTarget.getBoundingClientRect();
    ruler.moveTo(view.fromS + ((event.clientX - left) / width) * (view.toS - view.fromS));
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const act: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => ruler.step(-1),
      ArrowRight: () => ruler.step(1),
      PageUp: () => ruler.step(BIG_STEP),
      PageDown: () => ruler.step(-BIG_STEP),
      Home: () => ruler.moveTo(0),
      End: () => ruler.moveTo(wholeS),
      '+': () => ruler.zoom(1 / TWICE),
      '-': () => ruler.zoom(TWICE),
      ' ': () => ruler.play(!ruler.isPlaying),
    };
    const doIt = act[event.key];
    if (doIt === undefined) return;
    event.preventDefault();
    doIt();
  };
  return (
    <section aria-label="Ruler" className="grid gap-2">
      <Controls ruler={ruler} wholeS={wholeS} marks={marks} />
      <p className="min-h-10 text-[13px] md:min-h-5">
        <strong className="tabular-nums">{timeWords(cursorS)}</strong>
        {now !== undefined && <span className={now.isBad ? 'text-over' : ''}> {now.sentence}</span>}
      </p>
      <div className="grid gap-x-3 md:grid-cols-[13rem_1fr]">
        <p className="text-[13px] text-quiet">Since the grid went</p>
        <div
          role="slider"
          tabIndex={0}
          aria-label="Time since the grid went"
          aria-valuemin={-AHEAD_S}
          aria-valuemax={wholeS}
          aria-valuenow={Number(cursorS.toFixed(4))}
          aria-valuetext={words}
          className="relative h-9 cursor-pointer touch-none border-b border-edge select-none"
          onKeyDown={onKeyDown}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            toPointer(event);
          }}
          onPointerMove={(event) => event.buttons > 0 && toPointer(event)}
        >
          {marks
            .filter(({ atS }) => isInView(atS))
            .map(({ atS, sentence, isBad }) => (
              <span
                key={`${atS} ${sentence}`}
                aria-hidden="true"
                title={sentence}
                className={`absolute top-0 -translate-x-1/2 text-[11px] ${isBad ? 'text-over' : 'text-quiet'}`}
                style={{ left: `${share(atS) * 100}%` }}
              >
                {isBad ? '▼' : '▽'}
              </span>
            ))}
          {marksOf(view).map((seconds) => (
            <span
              key={seconds}
              className="absolute bottom-0 h-4 border-l border-edge pl-1 text-[12px] whitespace-nowrap text-quiet"
              style={{ left: `${share(seconds) * 100}%` }}
            >
              {share(seconds) <= LAST_PLACE && timeWords(seconds)}
            </span>
          ))}
          {isInView(cursorS) && (
            <span
              aria-hidden="true"
              className="absolute inset-y-0 w-0.5 -translate-x-px bg-touch"
              style={{ left: `${share(cursorS) * 100}%` }}
            />
          )}
        </div>
      </div>
      {note !== undefined && <p className="text-[13px] text-over">{note}</p>}
      {lanes.map((lane) => (
        <LaneRow key={lane.key} lane={lane} view={view} cursorS={cursorS} />
      ))}
    </section>
  );
}
