import { type Remote, wrap } from 'comlink';
import { broken, BROKEN_WORDS } from './broken.ts';
import type { IntervalChoices, IntervalWork, Opened, Summarised } from './intervals.worker.ts';

/** A meter file being read beside the page. Closing it ends the worker and forgets the rows. */
export interface OpenMeterFile {
  readonly name: string;
  readonly opened: Opened;
  readonly summarise: (choices: IntervalChoices) => Promise<Summarised>;
  readonly close: () => void;
}

/** Two years of quarter hours in a wide file; more is no meter reading. */
const MOST_BYTES = 60_000_000;

export async function openMeterFile(file: File): Promise<OpenMeterFile | string> {
  if (file.size > MOST_BYTES)
    return `${file.name} is larger than ${MOST_BYTES / 1e6} MB, so it was not read.`;
  const worker = new Worker(new URL('./intervals.worker.ts', import.meta.url), { type: 'module' });
  const work: Remote<IntervalWork> = wrap<IntervalWork>(worker);
  const failure = broken(worker).catch(() => BROKEN_WORDS);
  const text = await file.text();
  const opened: Opened | string = await Promise.race([work.open(text), failure]);
  if (typeof opened === 'string') return opened;
  return {
    name: file.name,
    opened,
    summarise: async (choices) => {
      const answer: Summarised | string = await Promise.race([
        work.summarise(choices, opened.kind === 'espi'),
        failure,
      ]);
      return typeof answer === 'string' ? { ok: false, message: answer } : answer;
    },
    close: () => worker.terminate(),
  };
}
