import type { CaptureFile } from './capture.ts';
import { latin1 } from './comtrade.ts';
import type { WaveRecord } from '../waveform/record.ts';
import type { ComtradeFiles } from './comtrade.ts';

/** Counts of a 16-bit sample that are used: the least one says "missing". */
const FULL_16 = 32_767;

/** The scale of one channel, so that its highest value fills the counts. */
function scaleOf(samples: Float64Array): number {
  let most = 0;
  for (const value of samples) most = Math.max(most, Math.abs(value));
  return most === 0 ? 1 : most / FULL_16;
}

const two = (value: number, digits = 2): string => String(Math.floor(value)).padStart(digits, '0');
/** A clock time of a number of seconds after midnight. */
const clock = (seconds: number): string =>
  `${two(seconds / 3600)}:${two((seconds / 60) % 60)}:${(seconds % 60).toFixed(6).padStart(9, '0')}`;

/** Writes a record as configuration and 16-bit data, revision 1999. The day is the caller's: the core has no clock. */
export function writeComtrade(record: WaveRecord, day: string): ComtradeFiles {
  const { channels, rateHz, nominalHz, triggerS = 0 } = record;
  const count = channels[0]?.samples.length ?? 0;
  const scales = channels.map(({ samples }) => scaleOf(samples));
  const [year = '', month = '', date = ''] = day.split('-');
  const stamp = (seconds: number): string => `${date}/${month}/${year},${clock(43_200 + seconds)}`;
  const plain = (text: string): string => text.replaceAll(/[,\r\n]/gu, ' ');
  const cfg = [
    `${plain(record.title)},rehearsal,1999`,
    `${channels.length},${channels.length}A,0D`,
    ...channels.map(
      ({ id, phase, unit }, index) =>
        `${index + 1},${plain(id)},${plain(phase)},,${unit},${(scales[index] ?? 1).toPrecision(12)},0,0,${-FULL_16},${FULL_16},1,1,P`,
    ),
    String(nominalHz ?? 50),
    '1',
    `${rateHz},${count}`,
    stamp(0),
    stamp(triggerS),
    'BINARY',
    '1',
    '',
  ].join('\r\n');
  const step = 8 + channels.length * 2;
  const dat = new Uint8Array(step * count);
  const view = new DataView(dat.buffer);
  for (let row = 0; row < count; row += 1) {
    view.setInt32(row * step, row + 1, true);
    view.setUint32(row * step + 4, Math.round((row / rateHz) * 1e6), true);
    channels.forEach(({ samples }, index) =>
      view.setInt16(row * step + 8 + index * 2, Math.round((samples[row] ?? 0) / (scales[index] ?? 1)), true),
    );
  }
  return { cfg, dat };
}

const bytesOf = (text: string): Uint8Array =>
  Uint8Array.from({ length: text.length }, (_, at) => Math.min(255, text.charCodeAt(at)));

/** Configuration and data one after the other, as the revision of 2013 has them in one file. */
function inOneFile(cfg: Uint8Array, dat: Uint8Array, datKind: string): Uint8Array {
  const parts = [
    bytesOf('--- file type: CFG ---\r\n'),
    cfg,
    bytesOf(`${cfg.at(-1) === NEW_LINE ? '' : '\r\n'}--- file type: DAT ${datKind}: ${dat.length} ---\r\n`),
    dat,
  ];
  const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

const NEW_LINE = 10;

/** The same in one file. */
export function writeComtradeFile(record: WaveRecord, day: string): Uint8Array {
  const { cfg, dat } = writeComtrade(record, day);
  return inOneFile(bytesOf(cfg), dat, 'BINARY');
}

/**
 * A capture as one file, to be kept: a .cfg with its .dat becomes a .cff, what is one file already stays as it is. Undefined for files
 * that are no capture.
 */
export function captureInOneFile(files: readonly CaptureFile[]): CaptureFile | undefined {
  const [first] = files;
  const by = (ending: string): CaptureFile | undefined =>
    files.find(({ name }) => name.toLowerCase().endsWith(ending));
  const [cfg, dat] = [by('.cfg'), by('.dat')];
  if (cfg === undefined || dat === undefined) return files.length === 1 ? first : undefined;
  // The kind of the data stands in a line of its own near the end of the configuration.
  const kind = /^\s*(ascii|binary32|binary|float32)\s*$/imu.exec(latin1(cfg.bytes))?.[1] ?? 'BINARY';
  return {
    name: cfg.name.replace(/\.cfg$/iu, '.cff'),
    bytes: inOneFile(cfg.bytes, dat.bytes, kind.toUpperCase()),
  };
}
