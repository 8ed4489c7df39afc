import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { type CaptureFile, isInBand, readCapture, type WaveExpectation, waveFigures } from '@bastion/core';
import type { Streams } from './streams.ts';

const FIGURES = {
  '--nominal': 'nominalV',
  '--hz': 'nominalHz',
  '--band': 'band',
  '--band-hz': 'bandHz',
  '--transfer': 'transferMs',
} as const;
const isFigure = (name: string): name is keyof typeof FIGURES => name in FIGURES;

function readExpectation(options: readonly string[]): WaveExpectation | string {
  const found: Record<string, number> = {};
  for (let at = 0; at < options.length; at += 2) {
    const [name = '', text = ''] = options.slice(at, at + 2);
    const value = Number(text);
    if (!isFigure(name)) return `${name}: not an option of this command`;
    if (text === '' || !(value > 0)) return `${name} ${text}: a number above nought is needed`;
    found[FIGURES[name]] = value;
  }
  return {
    nominalV: found.nominalV ?? 230,
    nominalHz: found.nominalHz ?? 50,
    band: found.band ?? 0.06,
    bandHz: found.bandHz ?? 0.5,
    transferMs: found.transferMs,
  };
}

/** The files of a capture: a configuration brings its data along. */
function filesOf(file: string): CaptureFile[] {
  const names = /\.cfg$/iu.test(file) ? [file, file.replace(/cfg$/u, 'dat').replace(/CFG$/u, 'DAT')] : [file];
  return names.map((name) => ({ name: basename(name), bytes: readFileSync(name) }));
}

/** Measures a capture and prints its figures. 0: all inside what is expected; 1: one outside; 2: it cannot be used. */
export function wave(file: string, options: readonly string[], streams: Streams): number {
  const expected = readExpectation(options);
  if (typeof expected === 'string') {
    streams.error(`${expected}\n`);
    return 2;
  }
  let files: CaptureFile[];
  try {
    files = filesOf(file);
  } catch (error) {
    streams.error(`${file}: ${error instanceof Error ? error.message : 'cannot be read'}\n`);
    return 2;
  }
  const read = readCapture(files);
  if (!read.ok) {
    streams.error(`${file}: ${read.problems[0]?.message ?? 'cannot be read'}\n`);
    return 2;
  }
  const { title, rateHz, triggerS, channels } = read.value;
  const figures = waveFigures(read.value, expected);
  const record = { title, rateHz, triggerS, samples: channels[0]?.samples.length ?? 0 };
  streams.out(`${JSON.stringify({ record, expected, ...figures }, null, 2)}\n`);
  return figures.channels.some(({ figures: some }) => some.some((one) => isInBand(one) === false)) ? 1 : 0;
}
