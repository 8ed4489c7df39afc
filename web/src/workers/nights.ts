import type { Design, NightsSummary } from '@bastion/core';
import { proxy, wrap } from 'comlink';
import { CalledOff } from './advice.ts';
import { broken } from './broken.ts';
import type { NightsAsk, NightsWork, PlayedNights } from './nights.worker.ts';

/** Plays many nights beside the page; calling it off ends it at once. */
export async function runNights(
  design: Design,
  stackId: string,
  asked: NightsAsk,
  onProgress: (share: number, summary: NightsSummary) => void,
  signal: AbortSignal,
): Promise<PlayedNights | undefined> {
  const worker = new Worker(new URL('./nights.worker.ts', import.meta.url), { type: 'module' });
  const off = new Promise<never>((_resolve, reject) =>
    signal.addEventListener('abort', () => reject(new CalledOff()), { once: true }),
  );
  let isOver = false;
  const tell = (share: number, summary: NightsSummary): void => {
    if (!isOver) onProgress(share, summary);
  };
  try {
    return await Promise.race([
      wrap<NightsWork>(worker).play(design, stackId, asked, proxy(tell)),
      off,
      broken(worker),
    ]);
  } finally {
    isOver = true;
    worker.terminate();
  }
}
