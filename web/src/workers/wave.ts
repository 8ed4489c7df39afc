import type { WaveExpectation, WaveFigures } from '@bastion/core';
import { type Remote, wrap } from 'comlink';
import { broken, BROKEN_WORDS } from './broken.ts';
import type { CaptureHead, Opened, WaveWork } from './wave.worker.ts';

/** A capture that is open beside the page. Closing it ends the worker and forgets the samples. */
export interface OpenCapture {
  readonly name: string;
  /** As it was picked. */
  readonly files: readonly File[];
  readonly head: CaptureHead;
  readonly figures: WaveFigures;
  readonly picture: (fromS: number, toS: number, columns: number) => Promise<readonly Float64Array[]>;
  readonly close: () => void;
}

const MOST_BYTES = 1_000_000_000;

/** Opens a capture in a worker of its own; a sentence where it cannot be read. */
export async function openCapture(
  files: readonly File[],
  expected: WaveExpectation,
): Promise<OpenCapture | string> {
  const size = files.reduce((sum, file) => sum + file.size, 0);
  const name = files.map((file) => file.name).join(' and ');
  if (size > MOST_BYTES) return `${name} is larger than ${MOST_BYTES / 1e6} MB, so it was not read.`;
  const worker = new Worker(new URL('./wave.worker.ts', import.meta.url), { type: 'module' });
  const work: Remote<WaveWork> = wrap<WaveWork>(worker);
  const failure = broken(worker).catch(() => BROKEN_WORDS);
  const read = await Promise.all(
    files.map(async (file) => ({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) })),
  );
  const opened: Opened | string = await Promise.race([work.open(read, expected), failure]);
  if (typeof opened === 'string' || !opened.ok) {
    worker.terminate();
    return typeof opened === 'string' ? opened : `${name}: ${opened.message}.`;
  }
  return {
    name,
    files,
    head: opened.head,
    figures: opened.figures,
    picture: async (fromS, toS, columns) => work.picture(fromS, toS, columns),
    close: () => worker.terminate(),
  };
}
