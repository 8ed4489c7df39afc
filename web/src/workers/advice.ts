import type { Advice, AskedAdvice, Design } from '@bastion/core';
import { proxy, wrap } from 'comlink';
import type { AdviceWork } from './advice.worker.ts';
import { broken } from './broken.ts';

/** Work that was called off by the person who asked for it. */
export class CalledOff extends Error {
  constructor() {
    super('Called off.');
  }
}

/** Works advice out beside the page, which stays free. Calling it off ends the worker at once. */
export async function runAdvice(
  kind: AskedAdvice,
  design: Design,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<Advice> {
  const worker = new Worker(new URL('./advice.worker.ts', import.meta.url), { type: 'module' });
  const off = new Promise<never>((_resolve, reject) =>
    signal.addEventListener('abort', () => reject(new CalledOff()), { once: true }),
  );
  let isOver = false;
  // Progress travels on a way of its own, and its last word may come after the answer.
  const tell = (share: number): void => {
    if (!isOver) onProgress(share);
  };
  try {
    const work = wrap<AdviceWork>(worker);
    return await Promise.race([work.advise(kind, design, proxy(tell)), off, broken(worker)]);
  } finally {
    isOver = true;
    worker.terminate();
  }
}
