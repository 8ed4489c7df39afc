import type { Result } from '../values/problem.ts';
import type { WaveRecord } from '../waveform/record.ts';
import { latin1, readComtrade, splitComtrade } from './comtrade.ts';
import { readScopeCsv, type ScopeColumns } from './scopeCsv.ts';

/** A file as it was picked. */
export interface CaptureFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

const endingOf = ({ name }: CaptureFile): string => name.slice(name.lastIndexOf('.') + 1).toLowerCase();

/** Reads a capture by the endings of its files: .cfg with its .dat, .cff, or .csv and .txt of an oscilloscope. */
export function readCapture(files: readonly CaptureFile[], columns: ScopeColumns = {}): Result<WaveRecord> {
  const by = (...endings: readonly string[]): CaptureFile | undefined =>
    files.find((file) => endings.includes(endingOf(file)));
  const refuse = (message: string): Result<WaveRecord> => ({ ok: false, problems: [{ path: [], message }] });
  const single = by('cff');
  if (single !== undefined) {
    const split = splitComtrade(single.bytes);
    return split.ok ? readComtrade(split.value) : split;
  }
  const [cfg, dat] = [by('cfg'), by('dat')];
  if (cfg !== undefined || dat !== undefined) {
    if (cfg === undefined)
      return refuse('The data (.dat) came without its configuration (.cfg): choose both files');
    if (dat === undefined)
      return refuse('The configuration (.cfg) came without its data (.dat): choose both files');
    return readComtrade({ cfg: latin1(cfg.bytes), dat: dat.bytes });
  }
  const table = by('csv', 'txt', 'tsv');
  return table === undefined
    ? refuse('A capture is a .cff, a .cfg with its .dat, or a .csv of an oscilloscope')
    : readScopeCsv(latin1(table.bytes), columns);
}
