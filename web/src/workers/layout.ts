import { type Diagram, type Layout, layoutQuestion, readLayout } from '@bastion/core';
import { type Remote, wrap } from 'comlink';
import { broken } from './broken.ts';
import type { LayoutWork } from './layout.worker.ts';

let shared: { readonly worker: Worker; readonly work: Remote<LayoutWork> } | undefined;

/** Lays a drawing out beside the page. The worker is kept: loading its engine costs more than a layout. */
export async function layOut(diagram: Diagram): Promise<Layout> {
  if (shared === undefined) {
    const worker = new Worker(new URL('./layout.worker.ts', import.meta.url), { type: 'module' });
    shared = { worker, work: wrap<LayoutWork>(worker) };
  }
  const { worker, work } = shared;
  try {
    return readLayout(await Promise.race([work.layout(layoutQuestion(diagram)), broken(worker)]));
  } catch (error) {
    worker.terminate();
    shared = undefined;
    throw error;
  }
}
