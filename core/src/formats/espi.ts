import { type BadRow, type IntervalReading, type IntervalResult, wattsOf } from './intervals.ts';

/** Units of measure of the standard that a load can be read from: real energy and real power. */
const WATT_HOURS = 72;
const WATTS = 38;
/** Energy that flows from the grid to the customer. */
const FORWARD = 1;

/** Text inside the first element of a name, whatever its namespace prefix. */
function inside(xml: string, name: string): string | undefined {
  return new RegExp(String.raw`<(?:[\w-]+:)?${name}(?:\s[^>]*)?>([\s\S]*?)</(?:[\w-]+:)?${name}>`).exec(
    xml,
  )?.[1];
}

function numberIn(xml: string, name: string): number | undefined {
  const text = inside(xml, name)?.trim();
  return text === undefined || text === '' || !/^-?\d+$/.test(text) ? undefined : Number(text);
}

function* each(xml: string, name: string): Generator<string> {
  const pattern = new RegExp(
    String.raw`<(?:[\w-]+:)?${name}(?:\s[^>]*)?>([\s\S]*?)</(?:[\w-]+:)?${name}>`,
    'g',
  );
  for (let found = pattern.exec(xml); found !== null; found = pattern.exec(xml)) yield found[1] ?? '';
}

interface ReadingKind {
  readonly unit: 'Wh' | 'W';
  readonly scale: number;
}

function kindOf(types: readonly string[]): ReadingKind | string {
  const wanted = types.filter((type) => {
    const flow = numberIn(type, 'flowDirection');
    return flow === undefined || flow === FORWARD;
  });
  const [only] = wanted;
  if (types.length > 1 || only === undefined)
    return `The file holds ${types.length} kinds of reading. Export the energy taken from the grid by itself.`;
  const uom = numberIn(only, 'uom');
  if (uom !== WATT_HOURS && uom !== WATTS)
    return `The readings are in unit ${String(uom ?? 'unknown')} of the standard; real energy (72) or real power (38) is needed.`;
  return {
    unit: uom === WATTS ? 'W' : 'Wh',
    scale: Number(`1e${Math.round(numberIn(only, 'powerOfTenMultiplier') ?? 0)}`),
  };
}

function readOne(xml: string, kind: ReadingKind): { reading: IntervalReading; minutes: number } | string {
  const startS = numberIn(xml, 'start');
  const durationS = numberIn(xml, 'duration');
  const value = numberIn(xml, 'value');
  if (startS === undefined) return 'has no start';
  if (durationS === undefined || durationS <= 0) return 'has no duration';
  if (value === undefined) return 'has no value';
  if (value < 0) return `${value} is negative: energy that was fed in is not a load`;
  const minutes = durationS / 60;
  return {
    reading: { startMs: startS * 1000, watts: wattsOf(value * kind.scale, kind.unit, minutes) },
    minutes,
  };
}

/**
 * Reads interval readings of the open meter-reading standard (ESPI, NAESB REQ.21): `IntervalReading` elements with start
 * and duration in seconds since 1970 UTC, and one `ReadingType` that gives unit and power of ten.
 */
export function readEspi(text: string): IntervalResult {
  if (/<!DOCTYPE/i.test(text))
    return { ok: false, message: 'This file brings definitions of its own (DOCTYPE), which are not read.' };
  const xml = text.replace(/<!--[\s\S]*?-->/g, '');
  const kind = kindOf([...each(xml, 'ReadingType')]);
  if (typeof kind === 'string') return { ok: false, message: kind };
  const readings: IntervalReading[] = [];
  const bad: BadRow[] = [];
  const lengths = new Set<number>();
  let row = 0;
  for (const block of each(xml, 'IntervalReading')) {
    row += 1;
    const one = readOne(block, kind);
    if (typeof one === 'string') bad.push({ row, reason: one });
    else {
      readings.push(one.reading);
      lengths.add(one.minutes);
    }
  }
  if (readings.length === 0) return { ok: false, message: 'There are no interval readings in this file.' };
  const [only] = lengths;
  const intervalMin = ([15, 30, 60] as const).find((minutes) => minutes === only);
  if (lengths.size > 1 || intervalMin === undefined)
    return { ok: false, message: 'The readings are not all of 15, 30 or 60 minutes.' };
  readings.sort((a, b) => a.startMs - b.startMs);
  const unique = readings.filter((reading, index) => reading.startMs !== readings[index - 1]?.startMs);
  return { ok: true, value: { readings: unique, intervalMin, bad, repeated: 0 } };
}
