import type { Result } from '../values/problem.ts';

export interface AnalogConfig {
  readonly id: string;
  readonly phase: string;
  readonly unit: string;
  /** value = a · raw + b. */
  readonly a: number;
  readonly b: number;
  readonly primary: number;
  readonly secondary: number;
  /** Whether the figures are those behind the instrument transformer. */
  readonly isSecondary: boolean;
}

/** What the configuration of a record says. */
export interface Config {
  readonly station: string;
  readonly recorder: string;
  readonly revision: '1991' | '1999' | '2013';
  readonly analog: readonly AnalogConfig[];
  readonly digital: readonly string[];
  readonly nominalHz: number | undefined;
  readonly rates: readonly { readonly hz: number; readonly last: number }[];
  readonly samples: number;
  readonly kind: 'ASCII' | 'BINARY' | 'BINARY32' | 'FLOAT32';
  /** The stamps of the data are multiples of so many microseconds. */
  readonly multiplier: number;
  readonly triggerS: number | undefined;
}

const MOST_CHANNELS = 1000;
const MOST_SAMPLES = 100_000_000;

/** Seconds between two stamps "dd/mm/yyyy,hh:mm:ss.ssssss" of one day or the next; the order of day and month does not matter. */
function secondsBetween(from: string | undefined, to: string | undefined): number | undefined {
  const clock = (text: string | undefined): number | undefined => {
    const found = /(\d{1,2}):(\d{1,2}):(\d{1,2}(?:\.\d+)?)\s*$/u.exec(text ?? '');
    return found === null ? undefined : Number(found[1]) * 3600 + Number(found[2]) * 60 + Number(found[3]);
  };
  const [a, b] = [clock(from), clock(to)];
  if (a === undefined || b === undefined) return undefined;
  // Stamps have a microsecond, those of 2013 a nanosecond: what lies below is rounding.
  const span = Math.round((b - a) * 1e9) / 1e9;
  return span < 0 ? span + 86_400 : span;
}

class Lines {
  private at = 0;
  constructor(private readonly lines: readonly string[]) {}
  get number(): number {
    return this.at;
  }
  next(): string[] | undefined {
    const line = this.lines[this.at];
    this.at += 1;
    return line?.split(',').map((field) => field.trim());
  }
  text(): string | undefined {
    const line = this.lines[this.at];
    this.at += 1;
    return line;
  }
}

/** Reads a configuration file. Says the line where it cannot be understood. */
export function readConfig(text: string): Result<Config> {
  const lines = new Lines(
    text.split(/\r?\n/u).filter((line, index, all) => index < all.length - 1 || line.trim() !== ''),
  );
  const wrong = (message: string): Result<never> => ({
    ok: false,
    problems: [{ path: [], message: `Configuration, line ${lines.number}: ${message}` }],
  });
  const head = lines.next();
  if (head === undefined || head.length < 2)
    return wrong('station and recorder are wanted, with a comma between');
  const [station = '', recorder = '', year = ''] = head;
  const revision = year === '1999' || year === '2013' ? year : '1991';
  const counts = lines.next();
  const [analogCount, digitalCount] = [/^(\d+)A$/iu, /^(\d+)D$/iu].map((shape, index) =>
    Number(shape.exec(counts?.[index + 1] ?? '')?.[1] ?? NaN),
  );
  if (
    analogCount === undefined ||
    digitalCount === undefined ||
    !Number.isInteger(analogCount + digitalCount)
  )
    return wrong('the counts of channels are wanted, as "4,3A,1D"');
  if (analogCount + digitalCount > MOST_CHANNELS)
    return wrong(`${analogCount + digitalCount} channels are more than the ${MOST_CHANNELS} that are read`);
  const analog: AnalogConfig[] = [];
  for (let at = 0; at < analogCount; at += 1) {
    const fields = lines.next();
    if (fields === undefined || fields.length < 10)
      return wrong(`analogue channel ${at + 1} has too few fields`);
    const a = Number(fields[5]);
    const b = Number(fields[6]);
    if (!Number.isFinite(a) || !Number.isFinite(b) || a === 0)
      return wrong(
        `analogue channel ${at + 1} has no usable scale: a is "${fields[5] ?? ''}", b is "${fields[6] ?? ''}"`,
      );
    analog.push({
      id: fields[1] === '' ? `channel ${at + 1}` : (fields[1] ?? ''),
      phase: fields[2] ?? '',
      unit: fields[4] ?? '',
      a,
      b,
      primary: Number(fields[10] ?? 1) || 1,
      secondary: Number(fields[11] ?? 1) || 1,
      isSecondary: (fields[12] ?? 'P').toUpperCase() === 'S',
    });
  }
  const digital: string[] = [];
  for (let at = 0; at < digitalCount; at += 1) {
    const fields = lines.next();
    if (fields === undefined || fields.length < 2)
      return wrong(`digital channel ${at + 1} has too few fields`);
    digital.push(fields[1] === '' ? `digital ${at + 1}` : (fields[1] ?? ''));
  }
  const frequency = Number(lines.next()?.[0] ?? NaN);
  const rateCount = Number(lines.next()?.[0] ?? NaN);
  if (!Number.isInteger(rateCount) || rateCount < 0) return wrong('the number of sampling rates is wanted');
  const rates: { hz: number; last: number }[] = [];
  for (let at = 0; at < Math.max(1, rateCount); at += 1) {
    const fields = lines.next();
    const [hz, last] = [Number(fields?.[0] ?? NaN), Number(fields?.[1] ?? NaN)];
    if (!Number.isFinite(hz) || hz < 0 || !Number.isInteger(last) || last < (rates.at(-1)?.last ?? 0))
      return wrong('a sampling rate and the number of its last sample are wanted');
    rates.push({ hz, last });
  }
  if (rateCount > 0 && rates.some(({ hz }) => hz === 0)) return wrong('the sampling rate is nought');
  const samples = rates.at(-1)?.last ?? 0;
  if (samples > MOST_SAMPLES)
    return wrong(`${samples} samples are more than the ${MOST_SAMPLES} that are read`);
  const [start, trigger] = [lines.text(), lines.text()];
  const kind = (lines.next()?.[0] ?? '').toUpperCase();
  if (kind !== 'ASCII' && kind !== 'BINARY' && kind !== 'BINARY32' && kind !== 'FLOAT32')
    return wrong(
      `the kind of the data is wanted (ASCII, BINARY, BINARY32 or FLOAT32), and "${kind.slice(0, 20)}" stands there`,
    );
  const multiplier = Number(lines.next()?.[0] ?? 1);
  return {
    ok: true,
    value: {
      station,
      recorder,
      revision,
      analog,
      digital,
      nominalHz: Number.isFinite(frequency) && frequency > 0 ? frequency : undefined,
      rates: rateCount === 0 ? [] : rates,
      samples,
      kind,
      multiplier: Number.isFinite(multiplier) && multiplier > 0 ? multiplier : 1,
      triggerS: secondsBetween(start, trigger),
    },
  };
}
