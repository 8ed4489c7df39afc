import type { Problem, Result } from '../values/problem.ts';
import { unitOf, type WaveChannel, type WaveRecord } from '../waveform/record.ts';
import { type Config, readConfig } from './comtradeConfig.ts';

/** The files of one record: configuration and data, or both in one. */
export interface ComtradeFiles {
  readonly cfg: string;
  readonly dat: Uint8Array;
}

const refuse = (message: string): { readonly ok: false; readonly problems: readonly Problem[] } => ({
  ok: false,
  problems: [{ path: [], message }],
});

const SECTION =
  /^--- file type: (CFG|DAT|HDR|INF)(?: (ASCII|BINARY|BINARY32|FLOAT32))?\s*(?::\s*(\d+))?\s*---\r?\n/iu;

/** Bytes as text, one for one. */
export function latin1(bytes: Uint8Array): string {
  const pieces: string[] = [];
  for (let at = 0; at < bytes.length; at += 8192)
    pieces.push(String.fromCharCode(...bytes.subarray(at, at + 8192)));
  return pieces.join('');
}

/** The longest heading of a section, bytes. */
const HEADING_BYTES = 200;

/** Where the next heading of a section begins, from a place on; the end where there is none. Only lines that begin with dashes are read. */
function nextHeading(bytes: Uint8Array, from: number): number {
  for (let at = bytes.indexOf(DASH, from); at >= 0; at = bytes.indexOf(DASH, at + 1)) {
    if (at > from && bytes[at - 1] !== NEWLINE) continue;
    if (SECTION.test(latin1(bytes.subarray(at, at + HEADING_BYTES)))) return at;
  }
  return bytes.length;
}
const DASH = 45;
const NEWLINE = 10;

/** Takes a file that holds all sections apart (CFF of IEEE C37.111-2013). Binary sections are passed over by the size they state. */
export function splitComtrade(bytes: Uint8Array): Result<ComtradeFiles> {
  let cfg: string | undefined;
  let dat: Uint8Array | undefined;
  for (let at = nextHeading(bytes, 0); at < bytes.length;) {
    const found = SECTION.exec(latin1(bytes.subarray(at, at + HEADING_BYTES)));
    if (found === null) break;
    const start = at + found[0].length;
    const isData = found[1]?.toUpperCase() === 'DAT';
    const size = Number(found[3] ?? NaN);
    const isSized = isData && found[2]?.toUpperCase() !== 'ASCII' && Number.isFinite(size);
    const end = isSized ? Math.min(bytes.length, start + size) : nextHeading(bytes, start);
    if (found[1]?.toUpperCase() === 'CFG') cfg = latin1(bytes.subarray(start, end));
    if (isData) dat = bytes.subarray(start, end);
    at = nextHeading(bytes, end);
  }
  if (cfg === undefined) return refuse('The file has no section "CFG": it is no record of one file');
  if (dat === undefined)
    return refuse('The file has no section "DAT": it holds a configuration without samples');
  return { ok: true, value: { cfg, dat } };
}

interface Samples {
  /** By channel. */
  readonly analog: readonly Float64Array[];
  readonly digital: readonly Uint8Array[];
  /** Stamps as written; NaN where one is left out. */
  readonly stamps: Float64Array;
}

/** Missing analogue samples are written as an empty field, or as the least number there is. */
const MISSING_16 = -32768;
const MISSING_32 = -2147483648;

function readAscii(config: Config, dat: Uint8Array): Result<Samples> {
  const text = latin1(dat);
  const { analog, digital, samples: count } = config;
  const made = room(config);
  const fields = 2 + analog.length + digital.length;
  let row = 0;
  let start = 0;
  while (start < text.length && row < count) {
    let end = text.indexOf('\n', start);
    if (end < 0) end = text.length;
    const line = text.slice(start, end).trim();
    start = end + 1;
    if (line === '' || line === '\u001a') continue;
    const parts = line.split(',');
    if (parts.length < fields)
      return refuse(`Sample ${row + 1} has ${parts.length} fields, and the configuration wants ${fields}`);
    if (row < made.stamps.length) made.stamps[row] = parts[1]?.trim() === '' ? NaN : Number(parts[1]);
    for (let at = 0; at < analog.length; at += 1) {
      const field = parts[2 + at]?.trim() ?? '';
      const value = field === '' || Number(field) === 99999 ? NaN : Number(field);
      if (field !== '' && Number.isNaN(Number(field)))
        return refuse(`Sample ${row + 1}, channel ${at + 1}: "${field.slice(0, 20)}" is no number`);
      (made.analog[at] ?? made.stamps)[row] = value;
    }
    for (let at = 0; at < digital.length; at += 1)
      (made.digital[at] ?? new Uint8Array(0))[row] = Number(parts[2 + analog.length + at]) === 1 ? 1 : 0;
    row += 1;
  }
  return row < count
    ? refuse(`The data ends after ${row} samples, and the configuration says ${count}: the file is cut short`)
    : { ok: true, value: made };
}

const BYTES = { BINARY: 2, BINARY32: 4, FLOAT32: 4 } as const;

/** The samples of one channel, one pass over its column of the rows. */
function readColumn(
  view: DataView,
  out: Float64Array,
  {
    offset,
    step,
    kind,
  }: { readonly offset: number; readonly step: number; readonly kind: keyof typeof BYTES },
): void {
  for (let row = 0, at = offset; row < out.length; row += 1, at += step) {
    if (kind === 'BINARY') {
      const raw = view.getInt16(at, true);
      out[row] = raw === MISSING_16 ? NaN : raw;
    } else if (kind === 'BINARY32') {
      const raw = view.getInt32(at, true);
      out[row] = raw === MISSING_32 ? NaN : raw;
    } else out[row] = view.getFloat32(at, true);
  }
}

function readBinary(config: Config, kind: keyof typeof BYTES, dat: Uint8Array): Result<Samples> {
  const { analog, digital, samples: count } = config;
  const width = BYTES[kind];
  const words = Math.ceil(digital.length / 16);
  const step = 8 + analog.length * width + words * 2;
  if (dat.byteLength < step * count)
    return refuse(
      `The data ends after ${Math.floor(dat.byteLength / step)} samples, and the configuration says ${count}: the file is cut short`,
    );
  const made = room(config);
  const view = new DataView(dat.buffer, dat.byteOffset, dat.byteLength);
  made.analog.forEach((out, channel) => readColumn(view, out, { offset: 8 + channel * width, step, kind }));
  for (let row = 0; row < made.stamps.length; row += 1) {
    const stamp = view.getUint32(row * step + 4, true);
    made.stamps[row] = stamp === NO_STAMP ? NaN : stamp;
  }
  made.digital.forEach((states, bit) => {
    const offset = 8 + analog.length * width + Math.floor(bit / 16) * 2;
    for (let row = 0; row < count; row += 1)
      states[row] = (view.getUint16(row * step + offset, true) >> (bit % 16)) & 1;
  });
  return { ok: true, value: made };
}

const NO_STAMP = 0xffffffff;

/** Whether the rates of the configuration tell the times, so that nobody needs the stamps. */
const hasRates = ({ rates }: Config): boolean => rates.length > 0 && rates.every(({ hz }) => hz > 0);

const room = (config: Config): Samples => ({
  analog: config.analog.map(() => new Float64Array(config.samples)),
  digital: config.digital.map(() => new Uint8Array(config.samples)),
  stamps: new Float64Array(hasRates(config) ? 0 : config.samples),
});

/** Missing samples are bridged by straight lines; how many there were is told. */
function bridged(samples: Float64Array): number {
  let missing = 0;
  let last = -1;
  for (let at = 0; at < samples.length; at += 1) {
    if (!Number.isNaN(samples[at] ?? NaN)) {
      if (at - last > 1) {
        const to = samples[at] ?? 0;
        const from = last < 0 ? to : (samples[last] ?? 0);
        for (let between = last + 1; between < at; between += 1)
          samples[between] = last < 0 ? to : from + ((to - from) * (between - last)) / (at - last);
      }
      last = at;
    } else missing += 1;
  }
  if (last >= 0) samples.fill(samples[last] ?? 0, last + 1);
  return missing;
}

/** Times of the samples, s: by the rates of the configuration, else by the stamps in the data. */
function timesOf({ rates, multiplier, samples }: Config, stamps: Float64Array): Result<Float64Array> {
  const times = new Float64Array(samples);
  if (rates.length > 0 && rates.every(({ hz }) => hz > 0)) {
    let at = 0;
    let time = 0;
    for (const { hz, last } of rates)
      for (; at < last && at < samples; at += 1) {
        times[at] = time;
        time += 1 / hz;
      }
    return { ok: true, value: times };
  }
  for (let at = 0; at < samples; at += 1) {
    const stamp = stamps[at] ?? NaN;
    if (Number.isNaN(stamp))
      return refuse(`Sample ${at + 1} has no time, and the configuration states no sampling rate`);
    times[at] = stamp * multiplier * 1e-6;
    if (at > 0 && (times[at] ?? 0) <= (times[at - 1] ?? 0))
      return refuse(`Sample ${at + 1} is not later than the one before it: the times cannot be used`);
  }
  const first = times[0] ?? 0;
  for (let at = 0; at < samples; at += 1) times[at] = (times[at] ?? 0) - first;
  return { ok: true, value: times };
}

/** Steps of time that differ by less than this share are equal. */
const EVEN = 1e-3;

/** The same signal at equal steps, by straight lines; the densest rate of the record counts. */
function evened(samples: Float64Array, times: Float64Array, rateHz: number): Float64Array {
  const count = Math.floor((times.at(-1) ?? 0) * rateHz) + 1;
  const out = new Float64Array(count);
  let at = 0;
  for (let index = 0; index < count; index += 1) {
    const time = index / rateHz;
    while (at + 2 < times.length && (times[at + 1] ?? 0) < time) at += 1;
    const [a, b] = [times[at] ?? 0, times[at + 1] ?? 0];
    const share = b > a ? (time - a) / (b - a) : 0;
    out[index] =
      (samples[at] ?? 0) + ((samples[at + 1] ?? 0) - (samples[at] ?? 0)) * Math.min(1, Math.max(0, share));
  }
  return out;
}

/**
 * Reads a record of the open format of power-system recorders (IEEE C37.111 of 1991, 1999 and 2013, IEC 60255-24): samples as text, 16 or
 * 32 bits, or floating. Figures are those of the primary side, in V and A.
 */
export function readComtrade({ cfg, dat }: ComtradeFiles): Result<WaveRecord> {
  const read = readConfig(cfg);
  if (!read.ok) return read;
  const config = read.value;
  if (config.samples < 2)
    return refuse(
      `The record has ${config.samples === 1 ? 'one sample' : 'no samples'}: nothing can be measured`,
    );
  const data = config.kind === 'ASCII' ? readAscii(config, dat) : readBinary(config, config.kind, dat);
  if (!data.ok) return data;
  // Of one rate the times are what they are; else they are worked out sample by sample.
  const oneRate = config.rates.length === 1 && hasRates(config) ? config.rates[0]?.hz : undefined;
  const times: Result<Float64Array> =
    oneRate === undefined
      ? timesOf(config, data.value.stamps)
      : { ok: true, value: new Float64Array([0, 1 / oneRate]) };
  if (!times.ok) return times;
  const steps = smallestAndLargestStep(times.value);
  const rateHz = config.rates.length > 0 ? Math.max(...config.rates.map(({ hz }) => hz)) : 1 / steps.least;
  const isEven = steps.most - steps.least <= EVEN * steps.least;
  const notes: string[] = [];
  if (!isEven)
    notes.push(
      steps.most > 50 * steps.least
        ? `There is a gap in time of ${(steps.most * 1000).toPrecision(3)} ms between two samples: what lies in it is not known.`
        : 'The record changes its sampling rate: it is read at the densest, with straight lines between.',
    );
  const channels = config.analog.map((channel, index): WaveChannel => {
    const samples = data.value.analog[index] ?? new Float64Array(0);
    const { kind, unit, scale } = unitOf(channel.unit);
    const ratio = channel.isSecondary && channel.secondary > 0 ? channel.primary / channel.secondary : 1;
    const missing = bridged(samples);
    if (missing > 0)
      notes.push(`Channel ${channel.id}: ${missing} samples are missing and bridged by straight lines.`);
    for (let at = 0; at < samples.length; at += 1)
      samples[at] = ((samples[at] ?? 0) * channel.a + channel.b) * scale * ratio;
    return {
      id: channel.id,
      phase: channel.phase,
      kind,
      unit,
      samples: isEven ? samples : evened(samples, times.value, rateHz),
    };
  });
  return {
    ok: true,
    value: {
      title: [config.station, config.recorder].filter((one) => one !== '').join(', '),
      rateHz,
      nominalHz: config.nominalHz,
      channels,
      digital: isEven
        ? config.digital.map((id, index) => ({ id, states: data.value.digital[index] ?? new Uint8Array(0) }))
        : [],
      triggerS: config.triggerS,
      notes,
    },
  };
}

function smallestAndLargestStep(times: Float64Array): { readonly least: number; readonly most: number } {
  let least = Infinity;
  let most = 0;
  for (let at = 1; at < times.length; at += 1) {
    const step = (times[at] ?? 0) - (times[at - 1] ?? 0);
    least = Math.min(least, step);
    most = Math.max(most, step);
  }
  return { least, most };
}
