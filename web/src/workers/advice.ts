import type { Advice, AskedAdvice, Design, EquipmentType } from '@bastion/core';
import { proxy, type Remote, wrap } from 'comlink';
import type { AdviceWork, FoundMends } from './advice.worker.ts';
import { broken } from './broken.ts';

/** Work that was called off by the person who asked for it. */
export class CalledOff extends Error {
  constructor() {
    super('Called off.');
  }
}

/** Starts a worker for one piece of work and ends it with it; calling it off ends it at once. */
async function withWorker<T>(
  signal: AbortSignal,
  task: (work: Remote<AdviceWork>) => Promise<T>,
): Promise<T> {
  const worker = new Worker(new URL('./advice.worker.ts', import.meta.url), { type: 'module' });
  const off = new Promise<never>((_resolve, reject) =>
    signal.addEventListener('abort', () => reject(new CalledOff()), { once: true }),
  );
  try {
    return await Promise.race([task(wrap<AdviceWork>(worker)), off, broken(worker)]);
  } finally {
    worker.terminate();
  }
}

/** Works advice out beside the page, which stays free. */
export async function runAdvice(
  kind: AskedAdvice,
  design: Design,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<Advice> {
  let isOver = false;
  // Progress travels on a way of its own, and its last word may come after the answer.
  const tell = (share: number): void => {
    if (!isOver) onProgress(share);
  };
  try {
    return await withWorker(signal, (work) => work.advise(kind, design, proxy(tell)));
  } finally {
    isOver = true;
  }
}

/** Works out beside the page what would clear a cause. */
export const runMends = (
  causeId: string,
  design: Design,
  catalogue: readonly EquipmentType[],
  signal: AbortSignal,
): Promise<FoundMends> => withWorker(signal, (work) => work.mends(causeId, design, catalogue));
