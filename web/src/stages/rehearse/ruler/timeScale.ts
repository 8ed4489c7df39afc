/** A part of the time since the grid went, in seconds. */
export interface TimeView {
  readonly fromS: number;
  readonly toS: number;
}

const MINUTE = 60;
const HOUR = 3600;
const DAY = 24 * HOUR;
/** Steps between two marks of the ruler, from a millisecond to days. */
const STEPS_S = [
  0.001,
  0.002,
  0.005,
  0.01,
  0.02,
  0.05,
  0.1,
  0.2,
  0.5,
  1,
  2,
  5,
  10,
  30,
  MINUTE,
  2 * MINUTE,
  5 * MINUTE,
  10 * MINUTE,
  30 * MINUTE,
  HOUR,
  2 * HOUR,
  3 * HOUR,
  6 * HOUR,
  12 * HOUR,
  DAY,
  2 * DAY,
];
const MOST_MARKS = 8;
/** The shortest stretch that is looked at, and how much is shown ahead of the grid's end, s. */
const SHORTEST_S = 0.01;
export const AHEAD_S = 0.02;

/** The marks of a view: at whole steps, eight at most. */
export function marksOf({ fromS, toS }: TimeView): readonly number[] {
  const step = STEPS_S.find((one) => (toS - fromS) / one <= MOST_MARKS) ?? 2 * DAY;
  const first = Math.ceil(fromS / step - 1e-9);
  const count = Math.floor((toS - first * step) / step + 1e-9) + 1;
  return Array.from({ length: Math.max(0, count) }, (_, at) => (first + at) * step);
}

const trim = (value: number): string => String(Number(value.toFixed(3)));

/** A time since the grid went in the unit that it is read in. */
export function timeWords(seconds: number): string {
  const size = Math.abs(seconds);
  if (size < 1) return `${trim(seconds * 1000)} ms`;
  if (size < 2 * MINUTE) return `${trim(seconds)} s`;
  if (size < 2 * HOUR) return `${trim(seconds / MINUTE)} min`;
  return `${trim(seconds / HOUR)} h`;
}

/** Holds a view inside the whole, and no shorter than can be read. */
export function held({ fromS, toS }: TimeView, wholeS: number): TimeView {
  const length = Math.min(Math.max(toS - fromS, SHORTEST_S), wholeS + AHEAD_S);
  const from = Math.min(Math.max(fromS, -AHEAD_S), wholeS - length);
  return { fromS: from, toS: from + length };
}

/** A view so many times as long, around a moment that stays where it is. */
export function zoomed({ fromS, toS }: TimeView, times: number, aroundS: number, wholeS: number): TimeView {
  return held({ fromS: aroundS - (aroundS - fromS) * times, toS: aroundS + (toS - aroundS) * times }, wholeS);
}

/** A view of the same length that holds a moment. */
export function showing(view: TimeView, atS: number, wholeS: number): TimeView {
  if (atS >= view.fromS && atS <= view.toS) return view;
  const length = view.toS - view.fromS;
  return held({ fromS: atS - length / 2, toS: atS + length / 2 }, wholeS);
}
