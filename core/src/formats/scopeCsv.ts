import type { Problem, Result } from '../values/problem.ts';
import { unitOf, type WaveChannel, type WaveRecord } from '../waveform/record.ts';

/** How the columns of a capture are to be read, where somebody says it otherwise than the headings. */
export interface ScopeColumns {
  /** Column of the time, counted from 0; undefined: the first one that rises evenly, else the rate that is stated. */
  readonly time?: number;
  readonly rateHz?: number;
  readonly channels?: readonly {
    readonly column: number;
    readonly id: string;
    readonly unit: string;
    /** Of the probe: by how much its figures are multiplied. */
    readonly factor: number;
  }[];
}

const SECONDS: Readonly<Record<string, number>> = { s: 1, ms: 1e-3, us: 1e-6, µs: 1e-6, ns: 1e-9 };
const refuse = (message: string): { readonly ok: false; readonly problems: readonly Problem[] } => ({
  ok: false,
  problems: [{ path: [], message }],
});

/** A heading as name and unit: "CH1 (V)", "Voltage [kV]", "t/ms". */
function heading(text: string): { readonly name: string; readonly unit: string } {
  const found = /^\s*"?(.*?)\s*(?:[[(/]\s*([^\])/]+)[\])]?)?\s*"?\s*$/u.exec(text);
  return { name: found?.[1] ?? text.trim(), unit: (found?.[2] ?? '').trim() };
}

interface Table {
  readonly headings: readonly string[][];
  readonly columns: Float64Array[];
  readonly rows: number;
}

const separatorOf = (line: string): string =>
  [';', '\t', ','].reduce(
    (best, one) => (line.split(one).length > line.split(best).length ? one : best),
    ',',
  );

/** Reads numbers column by column in one pass over the text; the first lines that hold none are headings. */
function tableOf(text: string): Result<Table> {
  const firstBreak = text.indexOf('\n');
  const lines = text.slice(0, 20_000).split(/\r?\n/u);
  const isNumeric = (line: string, separator: string): boolean => {
    const parts = line.split(separator);
    return (
      parts.length > 1 &&
      parts.every((part) => part.trim() === '' || Number.isFinite(numberOf(part, separator)))
    );
  };
  const sample = lines.find(
    (line) => /\d/u.test(line) && [';', '\t', ','].some((one) => isNumeric(line, one)),
  );
  if (firstBreak < 0 || sample === undefined)
    return refuse(
      'The file has no rows of numbers: time and at least one channel are wanted, column by column',
    );
  const separator = separatorOf(sample);
  const start = lines.indexOf(sample);
  const headings = lines.slice(0, start).map((line) => line.split(separator).map((one) => one.trim()));
  const width = sample.split(separator).length;
  let at = 0;
  for (let skipped = 0; skipped < start; skipped += 1) at = text.indexOf('\n', at) + 1;
  const capacity = Math.max(2, Math.ceil(((text.length - at) / Math.max(4, sample.length)) * 1.5) + 16);
  let columns: Float64Array[] = Array.from({ length: width }, () => new Float64Array(capacity));
  let rows = 0;
  while (at < text.length) {
    let end = text.indexOf('\n', at);
    if (end < 0) end = text.length;
    const line = text.slice(at, end);
    at = end + 1;
    if (line.trim() === '') continue;
    const parts = line.split(separator);
    if (parts.length < width)
      return refuse(
        `Row ${start + rows + 1} has ${parts.length} columns, and the others have ${width}: the file is cut short`,
      );
    if (rows >= (columns[0]?.length ?? 0)) columns = columns.map(doubled);
    for (let column = 0; column < width; column += 1) {
      const value = numberOf(parts[column] ?? '', separator);
      if (!Number.isFinite(value) && (parts[column] ?? '').trim() !== '')
        return refuse(
          `Row ${start + rows + 1}, column ${column + 1}: "${(parts[column] ?? '').slice(0, 20)}" is no number`,
        );
      (columns[column] ?? new Float64Array(0))[rows] = value;
    }
    rows += 1;
  }
  return { ok: true, value: { headings, columns: columns.map((one) => one.subarray(0, rows)), rows } };
}

function doubled(column: Float64Array): Float64Array {
  const next = new Float64Array(column.length * 2);
  next.set(column);
  return next;
}

/** A number; a comma is a decimal point where it does not part columns. */
function numberOf(text: string, separator: string): number {
  const plain = text.trim();
  if (plain === '') return NaN;
  return Number(separator === ',' ? plain : plain.replace(',', '.'));
}

/** The rate of a column of times, where each step is the same within a hundredth. */
function rateOf(times: Float64Array, scale: number): number | undefined {
  const span = ((times.at(-1) ?? 0) - (times[0] ?? 0)) * scale;
  const step = span / (times.length - 1);
  if (!(step > 0)) return undefined;
  for (let at = 1; at < times.length; at += Math.max(1, Math.floor(times.length / 5000))) {
    const one = ((times[at] ?? 0) - (times[at - 1] ?? 0)) * scale;
    if (Math.abs(one - step) > 0.01 * step + 1e-12) return undefined;
  }
  return 1 / step;
}

/** Reads a capture of an oscilloscope: headings as far as there are any, times and channels by column. */
export function readScopeCsv(
  text: string,
  { time, rateHz, channels }: ScopeColumns = {},
): Result<WaveRecord> {
  const table = tableOf(text);
  if (!table.ok) return table;
  const { headings, columns, rows } = table.value;
  if (rows < 2)
    return refuse(`The file has ${rows === 1 ? 'one sample' : 'no samples'}: nothing can be measured`);
  const names = headings.findLast((line) => line.length >= columns.length) ?? [];
  // A line of units may stand below the names.
  const above = headings.findLast(
    (line, index) => line.length >= columns.length && headings[index + 1] !== undefined,
  );
  const heads = columns.map((_, index) => {
    const own = heading(names[index] ?? '');
    const upper = heading(above?.[index] ?? '');
    const isUnitLine =
      own.unit === '' &&
      (unitOf(own.name).kind !== 'other' || Object.hasOwn(SECONDS, own.name.toLowerCase()));
    return isUnitLine && above !== undefined && above !== names ? { name: upper.name, unit: own.name } : own;
  });
  const scaleAt = (index: number): number => SECONDS[heads[index]?.unit.toLowerCase() ?? ''] ?? 1;
  const timeColumn =
    time ??
    (rateHz === undefined
      ? columns.findIndex((column, index) => rateOf(column, scaleAt(index)) !== undefined)
      : -1);
  const times = columns[timeColumn];
  const rate = rateHz ?? (times === undefined ? undefined : rateOf(times, scaleAt(timeColumn)));
  if (rate === undefined)
    return refuse(
      'No column rises in equal steps of time: say which one is the time, or how many samples there are in a second',
    );
  if (!(rate > 0) || !Number.isFinite(rate)) return refuse('The sampling rate must be above nought');
  const chosen =
    channels ??
    columns.flatMap((_, index) =>
      index === timeColumn
        ? []
        : [
            {
              column: index,
              id: heads[index]?.name || `channel ${index + 1}`,
              unit: heads[index]?.unit || 'V',
              factor: 1,
            },
          ],
    );
  const made = chosen.flatMap(({ column, id, unit, factor }): WaveChannel[] => {
    const samples = columns[column];
    if (samples === undefined) return [];
    const { kind, unit: plain, scale } = unitOf(unit);
    return [{ id, phase: '', kind, unit: plain, samples: samples.map((value) => value * scale * factor) }];
  });
  if (made.length === 0) return refuse('The file has no channel beside its times');
  const zero = times?.[0];
  const triggerS = zero === undefined || zero >= 0 ? undefined : -zero * scaleAt(timeColumn);
  return {
    ok: true,
    value: {
      title: '',
      rateHz: rate,
      nominalHz: undefined,
      channels: made,
      digital: [],
      triggerS,
      notes: [],
    },
  };
}
