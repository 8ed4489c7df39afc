import { describe, expect, it } from 'vitest';
import type { WaveRecord } from '../waveform/record.ts';
import { readCapture } from './capture.ts';
import { readComtrade, splitComtrade } from './comtrade.ts';
import { captureInOneFile, writeComtrade } from './comtradeWrite.ts';
import { readScopeCsv } from './scopeCsv.ts';

const bytes = (text: string): Uint8Array =>
  Uint8Array.from({ length: text.length }, (_, at) => text.charCodeAt(at));

/** Two channels of four samples at 1 kHz: kV behind a transformer of 1000 : 1, and A. */
const cfg = (kind: string, year = '1999', over: Partial<Record<'rates' | 'scale', string>> = {}): string =>
  [
    `Station,Recorder${year === '1991' ? '' : `,${year}`}`,
    '3,2A,1D',
    `1,VL1,L1,,V,${over.scale ?? '0.1,0'},0,-32767,32767${year === '1991' ? '' : ',1000,1,S'}`,
    `2,IL1,L1,,kA,0.001,0.5,0,-32767,32767${year === '1991' ? '' : ',1,1,P'}`,
    '1,breaker,,,0',
    '50',
    over.rates ?? '1\r\n1000,4',
    '27/11/2026,12:00:00.000000',
    '27/11/2026,12:00:00.002000',
    kind,
    '1',
    '',
  ].join('\r\n');

const ASCII = '1,0,100,0,0\r\n2,1000,-200,500,0\r\n3,2000,300,1000,1\r\n4,3000,-400,-500,1\r\n';

/** The same samples in words, by an independent writer. */
function binary(width: 2 | 4, isFloat = false): Uint8Array {
  const rows = [
    [100, 0, 0],
    [-200, 500, 0],
    [300, 1000, 1],
    [-400, -500, 1],
  ];
  const view = new DataView(new ArrayBuffer(rows.length * (8 + 2 * width + 2)));
  rows.forEach(([a = 0, b = 0, bit = 0], row) => {
    const at = row * (8 + 2 * width + 2);
    view.setUint32(at, row + 1, true);
    view.setUint32(at + 4, row * 1000, true);
    [a, b].forEach((value, channel) => {
      const where = at + 8 + channel * width;
      if (isFloat) view.setFloat32(where, value, true);
      else if (width === 2) view.setInt16(where, value, true);
      else view.setInt32(where, value, true);
    });
    view.setUint16(at + 8 + 2 * width, bit, true);
  });
  return new Uint8Array(view.buffer);
}

function expectRead(record: WaveRecord, ratio = 1000): void {
  expect([...(record.channels[0]?.samples ?? [])].map((one) => Math.round(one))).toEqual(
    [10, -20, 30, -40].map((one) => one * ratio),
  );
  // (0.001 · raw + 0.5) kA.
  expect([...(record.channels[1]?.samples ?? [])].map((one) => Math.round(one))).toEqual([
    500, 1000, 1500, 0,
  ]);
  expect(record.channels.map(({ kind, unit }) => `${kind} ${unit}`)).toEqual(['voltage V', 'current A']);
  expect([...(record.digital[0]?.states ?? [])]).toEqual([0, 0, 1, 1]);
  expect([record.rateHz, record.nominalHz, record.triggerS]).toEqual([1000, 50, 0.002]);
}

describe('records of power-system recorders', () => {
  it.each([
    ['text', cfg('ASCII'), bytes(ASCII)],
    ['16 bits', cfg('BINARY'), binary(2)],
    ['32 bits, 2013', cfg('BINARY32', '2013'), binary(4)],
    ['floating, 2013', cfg('FLOAT32', '2013'), binary(4, true)],
  ])('%s', (_, text, dat) => {
    const read = readComtrade({ cfg: text, dat });
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expectRead(read.value);
  });

  it('1991, whose channels say nothing of a transformer', () => {
    const read = readComtrade({ cfg: cfg('ASCII', '1991'), dat: bytes(ASCII) });
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expectRead(read.value, 1);
  });

  it('all in one file', () => {
    const dat = binary(2);
    const text = cfg('BINARY', '2013');
    const one = new Uint8Array([
      ...bytes(`--- file type: CFG ---\r\n${text}--- file type: DAT BINARY: ${dat.length} ---\r\n`),
      ...dat,
    ]);
    const split = splitComtrade(one);
    if (!split.ok) throw new Error(split.problems[0]?.message);
    const read = readComtrade(split.value);
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expectRead(read.value);
  });

  it.each<[string, string, Uint8Array]>([
    ['text', cfg('ASCII'), bytes(ASCII)],
    ['16 bits', cfg('BINARY'), binary(2)],
    ['floating', cfg('FLOAT32', '2013'), binary(4, true)],
    ['without a line end after the configuration', cfg('BINARY32', '2013').trimEnd(), binary(4)],
  ])('two files are kept as one that reads back the same: %s', (_, text, dat) => {
    const kept = captureInOneFile([
      { name: 'Gap.DAT', bytes: dat },
      { name: 'Gap.CFG', bytes: bytes(text) },
    ]);
    expect(kept?.name).toBe('Gap.cff');
    const read = readCapture(kept === undefined ? [] : [kept]);
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expectRead(read.value);
  });

  it('takes times from the stamps where no rate is stated', () => {
    const read = readComtrade({ cfg: cfg('ASCII', '1999', { rates: '0\r\n0,4' }), dat: bytes(ASCII) });
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expect(read.value.rateHz).toBeCloseTo(1000, 6);
  });

  it('bridges a missing sample and says so', () => {
    const dat = bytes(ASCII.replace('2,1000,-200', '2,1000,'));
    const read = readComtrade({ cfg: cfg('ASCII'), dat });
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expect(read.value.channels[0]?.samples[1]).toBeCloseTo(20_000, 6);
    expect(read.value.notes.join()).toContain('1 samples are missing');
  });

  it('brings two rates to the denser one', () => {
    const read = readComtrade({
      cfg: cfg('ASCII', '1999', { rates: '2\r\n1000,2\r\n500,4' }),
      dat: bytes(ASCII),
    });
    if (!read.ok) throw new Error(read.problems[0]?.message);
    // Times 0, 1, 2 and 4 ms: between the last two lies a sample half-way, (300 − 400) / 2 · 0.1 kV.
    expect([...(read.value.channels[0]?.samples ?? [])].map(Math.round)).toEqual([
      10_000, -20_000, 30_000, -5000, -40_000,
    ]);
    expect(read.value.notes.join()).toContain('changes its sampling rate');
  });

  it.each([
    ['cut short', cfg('ASCII'), bytes(ASCII.slice(0, 40)), /cut short|fields/],
    [
      'binary cut short',
      cfg('BINARY'),
      binary(2).subarray(0, 30),
      /ends after 2 samples, and the configuration says 4/,
    ],
    ['a rate of nought', cfg('ASCII', '1999', { rates: '1\r\n0,4' }), bytes(ASCII), /rate is nought/],
    ['one sample', cfg('ASCII', '1999', { rates: '1\r\n1000,1' }), bytes(ASCII), /one sample/],
    ['a scale of nought', cfg('ASCII', '1999', { scale: '0,0' }), bytes(ASCII), /no usable scale/],
    ['wrong counts', cfg('ASCII').replace('3,2A,1D', 'three'), bytes(ASCII), /line 2.*counts/],
    ['a kind nobody knows', cfg('MORSE'), bytes(ASCII), /"MORSE" stands there/],
    [
      'no number',
      cfg('ASCII'),
      bytes(ASCII.replace('300', 'high')),
      /Sample 3, channel 1: "high" is no number/,
    ],
    ['an empty file', '', bytes(''), /line 1/],
  ])('refuses %s with its place', (_, text, dat, words) => {
    const read = readComtrade({ cfg: text, dat });
    expect(read.ok ? '' : (read.problems[0]?.message ?? '')).toMatch(words);
  });

  it('reads what it has written', () => {
    const record: WaveRecord = {
      title: 'Transfer, as rehearsed',
      rateHz: 10_000,
      nominalHz: 50,
      triggerS: 0.1,
      digital: [],
      notes: [],
      channels: [
        {
          id: 'V L1',
          phase: 'L1',
          kind: 'voltage',
          unit: 'V',
          samples: Float64Array.from({ length: 2000 }, (_, at) => 325 * Math.sin(at / 30)),
        },
      ],
    };
    const read = readComtrade(writeComtrade(record, '2026-11-27'));
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expect([read.value.rateHz, read.value.nominalHz, read.value.triggerS?.toFixed(6)]).toEqual([
      10_000,
      50,
      '0.100000',
    ]);
    record.channels[0]?.samples.forEach((value, at) =>
      expect(Math.abs(value - (read.value.channels[0]?.samples[at] ?? 0))).toBeLessThan(0.006),
    );
  });
});

describe('captures of an oscilloscope', () => {
  const rows = (separator: string, point: (one: number) => string): string =>
    [0, 1, 2, 3].map((at) => [point(at * 0.5), point(at * 1.5), point(-at)].join(separator)).join('\n');

  it.each([
    ['names with units', `t [ms],CH1 (kV),CH2 (mA)\n${rows(',', String)}\n`, 1500, -0.001],
    [
      'decimal commas',
      `t [ms];CH1 [V];CH2 [A]\n${rows(';', (one) => String(one).replace('.', ','))}\n`,
      1.5,
      -1,
    ],
    ['a line of units below', `time,probe,clamp\nms,V,A\n${rows(',', String)}\n`, 1.5, -1],
    ['comments above', `# made by hand\nModel,X\nt [ms],CH1 (V),CH2 (A)\n${rows(',', String)}`, 1.5, -1],
  ])('%s', (_, text, first, second) => {
    const read = readScopeCsv(text);
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expect(read.value.rateHz).toBeCloseTo(2000, 6);
    expect(read.value.channels.map(({ samples }) => samples[1])).toEqual([first, second]);
  });

  it('takes columns, units and the rate as somebody says them', () => {
    const read = readScopeCsv('1,2\n3,4\n5,6\n', {
      rateHz: 4000,
      channels: [{ column: 1, id: 'grid', unit: 'V', factor: 100 }],
    });
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expect([...(read.value.channels[0]?.samples ?? [])]).toEqual([200, 400, 600]);
  });

  it.each([
    ['words alone', 'one two three', /no rows of numbers/],
    ['no column of time', '1,5\n1,7\n1,2\n', /No column rises/],
    ['a row cut short', 't,V\n0,1\n1,2\n2', /Row 4 has 1 columns/],
    ['a word among the numbers', 't,V\n0,1\n1,2\n2,high\n', /Row 4, column 2: "high"/],
    ['one sample', 't,V\n0,1\n', /one sample/],
  ])('refuses %s', (_, text, words) => {
    const read = readScopeCsv(text);
    expect(read.ok ? '' : (read.problems[0]?.message ?? '')).toMatch(words);
  });
});
