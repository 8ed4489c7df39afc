import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Design, Edit, Procedure, wire } from '@bastion/core';
import { Piscina } from 'piscina';
import { RefusalError } from '../errors.ts';
import type { Picture } from '../services/pictures.ts';
import type * as tasks from './tasks.ts';

/** No task holds a thread longer than this. */
const MOST_MS = 5000;
const THREADS = 2;
/** Tasks that wait at most: whoever comes then is asked to come again. */
const MOST_WAITING = 64;

/** The built tasks; sources run beside their build. */
function taskFile(): string {
  const beside = fileURLToPath(new URL('./tasks.js', import.meta.url));
  return existsSync(beside) ? beside : fileURLToPath(new URL('../../dist/work/tasks.js', import.meta.url));
}

/** A thread that works has at least this share of the time for itself. */
const WORKING_SHARE = 0.5;

/** Whether a thread can have worked for that long at all: on a machine that is busy with something else it may hardly have run. */
function hasWorked(before: NodeJS.CpuUsage): boolean {
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1000 >= MOST_MS * WORKING_SHARE;
}

/** Threads for what takes its time, so that no request waits for another's. */
export class Pool {
  private readonly piscina = new Piscina({
    filename: taskFile(),
    minThreads: 1,
    maxThreads: THREADS,
    maxQueue: MOST_WAITING,
    idleTimeout: 30_000,
  });

  /** The first thread has read its code: on a busy machine that alone takes seconds, and is nobody's fault who asks. */
  private readonly ready: Promise<unknown> = this.piscina
    .run(undefined, { name: 'awake' })
    .catch(() => undefined);

  private async run<T>(name: keyof typeof tasks, given: unknown): Promise<T> {
    await this.ready;
    const limit = new AbortController();
    const usedBefore = process.cpuUsage();
    const timer = setTimeout(() => limit.abort(), MOST_MS);
    try {
      const answer = (await this.piscina.run(given, { name, signal: limit.signal })) as tasks.Answer<T>;
      if (!answer.ok) throw new RefusalError(answer.code, answer.detail);
      return answer.value;
    } catch (error) {
      if (limit.signal.aborted) throw new RefusalError(hasWorked(usedBefore) ? 'TOO_LONG' : 'BUSY');
      if (error instanceof Error && error.message.includes('queue is at limit'))
        throw new RefusalError('BUSY');
      throw error;
    } finally {
      clearTimeout(timer);
    }
  }

  /** Judges text as a document. Problems are a refusal with their places. */
  async readWhole(text: string): Promise<Design> {
    return JSON.parse(await this.run<string>('readWhole', text)) as Design;
  }

  /** Reads a batch of edits that is too long to be read between other requests. */
  batch(text: string): Promise<wire.EditBatch> {
    return this.run('batch', text);
  }

  /** Lays many edits over a document. */
  async lay(given: tasks.Laying): Promise<{ readonly design: Design; readonly edits: readonly Edit[] }> {
    const { text, edits } = await this.run<{ text: string; edits: readonly Edit[] }>('layOver', given);
    return { design: JSON.parse(text) as Design, edits };
  }

  /** What a picture turns out to be. */
  picture(bytes: Uint8Array): Promise<Picture> {
    return this.run('picture', bytes);
  }

  summary(text: string): Promise<{ summary: string; usedTypes: string }> {
    return this.run('summary', text);
  }

  procedure(text: string): Promise<Procedure> {
    return this.run('procedure', text);
  }

  async paper(given: tasks.Paper): Promise<Buffer> {
    return Buffer.from(await this.run<Uint8Array>('paper', given));
  }

  /** Tasks that wait for a thread. */
  get waiting(): number {
    return this.piscina.queueSize;
  }

  async close(): Promise<void> {
    await this.piscina.destroy();
  }
}
