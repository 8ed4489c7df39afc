import {
  type Design,
  type Driver,
  firstNights,
  type NightColumns,
  nightColumns,
  type NightsRun,
  type NightsSummary,
  placeNights,
  type Plant,
  rankDrivers,
  summarise,
} from '@bastion/core';
import { type Remote, wrap } from 'comlink';
import { CalledOff } from './advice.ts';
import { broken } from './broken.ts';
import type { NightsAsk, NightsWork, PlayedNights } from './nights.worker.ts';

/** Nights that are played before the first picture, and in each part after it. */
const FIRST = 100;
const CHUNK = 500;
/** More threads than this leave the page too little. */
const MOST_WORKERS = 2;

/** The nights in parts: a small one for the first picture, then larger ones. */
function partsOf(nights: number): { readonly from: number; readonly to: number }[] {
  const parts: { from: number; to: number }[] = [];
  for (
    let from = 0, to = Math.min(FIRST, nights);
    from < nights;
    from = to, to = Math.min(to + CHUNK, nights)
  )
    parts.push({ from, to });
  return parts;
}

/** Gives tasks out one by one, each worker the next as soon as it is free. */
async function shareOut<T>(
  workers: readonly Remote<NightsWork>[],
  tasks: readonly T[],
  work: (worker: Remote<NightsWork>, task: T) => Promise<void>,
): Promise<void> {
  let next = 0;
  await Promise.all(
    workers.map(async (worker) => {
      for (let task = tasks[next]; task !== undefined; task = tasks[next]) {
        next += 1;
        await work(worker, task);
      }
    }),
  );
}

/** Nights from the first on without a gap: what a picture of them can be made of. */
function wholeUpTo(done: ReadonlyMap<number, number>): number {
  let to = 0;
  for (let next = done.get(to); next !== undefined; next = done.get(to)) to = next;
  return to;
}

interface Given {
  readonly plant: Plant;
  readonly run: NightsRun;
  readonly onProgress: (share: number, summary: NightsSummary) => void;
}

/** Plays all nights and then each choice, shared out among the workers. Any sharing gives the same to the last bit. */
async function playAll(
  workers: readonly Remote<NightsWork>[],
  choices: number,
  { plant, run, onProgress }: Given,
): Promise<PlayedNights> {
  const columns: NightColumns = nightColumns(plant, run.nights);
  const done = new Map<number, number>();
  let shown = 0;
  await shareOut(workers, partsOf(run.nights), async (worker, { from, to }) => {
    const part = await worker.play(from, to);
    if (part === undefined) throw new Error('The set cannot be played.');
    placeNights(columns, part, from);
    done.set(from, to);
    const whole = wholeUpTo(done);
    if (whole === shown) return;
    shown = whole;
    onProgress(whole / run.nights, summarise(plant, run, firstNights(columns, whole)));
  });
  const summary = summarise(plant, run, columns);
  const played: Pick<Driver, 'title' | 'summary'>[] = [];
  const all = Array.from({ length: choices }, (_, index) => index);
  await shareOut(workers, all, async (worker, index) => {
    const choice = await worker.choose(index);
    if (choice !== undefined) played[index] = choice;
  });
  return { summary, drivers: rankDrivers(played, summary) };
}

/** Threads that are there before anybody presses: starting one takes longer than its first nights. */
let waiting: Worker[] = [];

const newThread = (): Worker =>
  new Worker(new URL('./nights.worker.ts', import.meta.url), { type: 'module' });

const threadCount = (): number => Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency));

/** So many nights are played beforehand, by which the thread's code has been made fast. */
const REHEARSED = 20;

/** Has threads wait for the next question about a set. Returns how to let them go. */
export function awaitNights(design: Design, stackId: string, asked: NightsAsk): () => void {
  while (waiting.length < threadCount()) {
    const thread = newThread();
    waiting.push(thread);
    const worker = wrap<NightsWork>(thread);
    // What goes wrong here goes wrong again when it is asked for, and is told then.
    void worker
      .prepare(design, stackId, asked)
      .then(() => worker.play(0, REHEARSED))
      .catch(() => undefined);
  }
  return () => {
    for (const thread of waiting) thread.terminate();
    waiting = [];
  };
}

function takeThreads(): Worker[] {
  const threads = waiting;
  waiting = [];
  while (threads.length < threadCount()) threads.push(newThread());
  return threads;
}

/** Plays many nights beside the page, on two threads where there are two; calling it off ends it at once. */
export async function runNights(
  design: Design,
  stackId: string,
  asked: NightsAsk,
  given: Given,
  signal: AbortSignal,
): Promise<PlayedNights | undefined> {
  const threads = takeThreads();
  const off = new Promise<never>((_resolve, reject) =>
    signal.addEventListener('abort', () => reject(new CalledOff()), { once: true }),
  );
  let isOver = false;
  const onProgress: Given['onProgress'] = (share, summary) => {
    if (!isOver) given.onProgress(share, summary);
  };
  const play = async (): Promise<PlayedNights | undefined> => {
    const workers = threads.map((thread) => wrap<NightsWork>(thread));
    const choices = await Promise.all(workers.map((worker) => worker.prepare(design, stackId, asked)));
    const [first] = choices;
    return first === undefined ? undefined : playAll(workers, first, { ...given, onProgress });
  };
  try {
    return await Promise.race([play(), off, ...threads.map(broken)]);
  } finally {
    isOver = true;
    for (const thread of threads) thread.terminate();
  }
}
