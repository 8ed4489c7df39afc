export type DateOrder = 'year-first' | 'day-first' | 'month-first';

/** A time as written: local, or with its own offset from UTC. */
export type WrittenTime =
  { readonly kind: 'local'; readonly localMs: number } | { readonly kind: 'instant'; readonly utcMs: number };

const CLOCK = String.raw`(?:[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)?\s*([AaPp])?\.?[Mm]?\.?)?`;
const YEAR_FIRST = new RegExp(
  String.raw`^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})${CLOCK}\s*(Z|[+-]\d{2}:?\d{2})?$`,
);
const YEAR_LAST = new RegExp(String.raw`^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4})${CLOCK}$`);

function hourOf(text: string | undefined, half: string | undefined): number {
  const hour = Number(text ?? 0);
  if (half === undefined) return hour;
  return (hour % 12) + (half.toLowerCase() === 'p' ? 12 : 0);
}

function utcOf(
  year: number,
  month: number,
  day: number,
  hour: number,
  minute: number,
  second: number,
): number | undefined {
  // 24:00 is the end of a day, as some meters write it.
  if (month < 1 || month > 12 || day < 1 || day > 31 || hour > 24 || minute > 59 || second > 59)
    return undefined;
  const ms = Date.UTC(year, month - 1, day, hour, minute, second);
  return new Date(Date.UTC(year, month - 1, day)).getUTCDate() === day ? ms : undefined;
}

function offsetMs(text: string): number {
  if (text === 'Z') return 0;
  const digits = text.replace(':', '');
  const sign = digits.startsWith('-') ? -1 : 1;
  return sign * (Number(digits.slice(1, 3)) * 60 + Number(digits.slice(3, 5))) * 60_000;
}

/** Reads a date with or without a time. Undefined where the text is none, or the day does not exist. */
export function readTimestamp(text: string, order: DateOrder): WrittenTime | undefined {
  const trimmed = text.trim();
  const yearFirst = YEAR_FIRST.exec(trimmed);
  if (yearFirst !== null) {
    const [, year, month, day, hour, minute, second, half, offset] = yearFirst;
    const ms = utcOf(
      Number(year),
      Number(month),
      Number(day),
      hourOf(hour, half),
      Number(minute ?? 0),
      Number(second ?? 0),
    );
    if (ms === undefined) return undefined;
    return offset === undefined
      ? { kind: 'local', localMs: ms }
      : { kind: 'instant', utcMs: ms - offsetMs(offset) };
  }
  const yearLast = YEAR_LAST.exec(trimmed);
  if (yearLast === null) return undefined;
  const [, first, second, year, hour, minute, seconds, half] = yearLast;
  const [day, month] = order === 'month-first' ? [second, first] : [first, second];
  const ms = utcOf(
    Number(year),
    Number(month),
    Number(day),
    hourOf(hour, half),
    Number(minute ?? 0),
    Number(seconds ?? 0),
  );
  return ms === undefined ? undefined : { kind: 'local', localMs: ms };
}

/** Which part of 03/04/2026 is the day, told from the texts themselves; undefined where they leave it open. */
export function guessDateOrder(texts: readonly string[]): DateOrder | undefined {
  let open = false;
  for (const text of texts) {
    const parts = /^(\d{1,2})[-/.](\d{1,2})[-/.]\d{4}/.exec(text.trim());
    if (parts === null) continue;
    if (Number(parts[1]) > 12) return 'day-first';
    if (Number(parts[2]) > 12) return 'month-first';
    open = true;
  }
  return open ? undefined : 'year-first';
}
