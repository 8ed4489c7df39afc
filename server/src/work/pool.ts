import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Design, Procedure } from '@bastion/core';
import { Piscina } from 'piscina';
import { RefusalError } from '../errors.ts';
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

/** Threads for what takes its time, so that no request waits for another's. */
export class Pool {
  private readonly piscina = new Piscina({
    filename: taskFile(),
    minThreads: 1,
    maxThreads: THREADS,
    maxQueue: MOST_WAITING,
    idleTimeout: 30_000,
  });

  private async run<T>(name: keyof typeof tasks, given: unknown): Promise<T> {
    const limit = new AbortController();
    const timer = setTimeout(() => limit.abort(), MOST_MS);
    try {
      return (await this.piscina.run(given, { name, signal: limit.signal })) as T;
    } catch (error) {
      if (limit.signal.aborted) throw new RefusalError('TOO_LONG');
      if (error instanceof Error && error.message.includes('queue is at limit'))
        throw new RefusalError('BUSY');
      throw error;
    } finally {
      clearTimeout(timer);
    }
  }

  /** Judges text as a document. Problems are a refusal with their places. */
  async readWhole(text: string): Promise<Design> {
    const read = await this.run<ReturnType<typeof tasks.readWhole>>('readWhole', text);
    if (!read.ok) throw new RefusalError('DOCUMENT_INVALID', { problems: read.problems.slice(0, 100) });
    return JSON.parse(read.value) as Design;
  }

  summary(text: string): Promise<ReturnType<typeof tasks.summary>> {
    return this.run('summary', text);
  }

  procedure(text: string): Promise<Procedure> {
    return this.run('procedure', text);
  }

  async paper(given: tasks.Paper): Promise<Buffer> {
    return Buffer.from(await this.run<Uint8Array>('paper', given));
  }

  async close(): Promise<void> {
    await this.piscina.destroy();
  }
}
