import { createHash } from 'node:crypto';
import type { Design } from '@bastion/core';
import { Op, type Transaction } from 'sequelize';
import { RefusalError } from '../errors.ts';
import type { Models } from '../models/models.ts';
import type { RevisionRow } from '../models/revisions.ts';
import type { OpenDocument, OpenDocuments } from './openDocuments.ts';
import { SUMMARY } from '../stored/kinds.ts';
import { TOO_LARGE } from './summary.ts';
import type { Pool } from '../work/pool.ts';

/** How long a document rests before it is written out whole, and how long it waits at most while somebody types on. */
const REST_MS = 1500;
const MOST_MS = 15_000;
/** A whole document is kept for good at every so many revisions; between them the edits lead on. */
export const SNAPSHOT_EVERY = 1000;

interface KeepOptions {
  /** Who made the revision, where no edit tells: the first of a job. */
  readonly made?: { readonly author: string; readonly at: Date };
  readonly transaction?: Transaction;
}

/** Keeps the whole document of a revision for good. */
export async function keepRevision(
  models: Models,
  jobId: number,
  number: number,
  text: string,
  { made: first, transaction }: KeepOptions = {},
): Promise<void> {
  const inside = transaction === undefined ? {} : { transaction };
  const made =
    first ??
    (await models.edits.findOne({
      where: { jobId, revision: number },
      attributes: ['author', 'at'],
      ...inside,
    })) ??
    (await models.revisions.findOne({ where: { jobId, number }, attributes: ['author', 'at'], ...inside }));
  await models.revisions.upsert(
    {
      jobId,
      number,
      author: made?.author ?? '',
      at: made?.at ?? new Date(),
      hash: createHash('sha256').update(text).digest('hex'),
      document: text,
    },
    inside,
  );
}

interface Waiting {
  readonly since: number;
  timer: NodeJS.Timeout;
}

/**
 * Writes whole documents and their summaries behind the edits, in order: the edits are what is durable, and a document that is behind
 * is caught up by them when it is next read. So a server that dies between loses nothing.
 */
export class Checkpoints {
  private readonly models: Models;
  private readonly documents: OpenDocuments;
  private readonly pool: Pool;
  private readonly waiting = new Map<number, Waiting>();
  private readonly running = new Map<number, Promise<void>>();

  constructor(models: Models, documents: OpenDocuments, pool: Pool) {
    this.pool = pool;
    this.models = models;
    this.documents = documents;
  }

  /** A job has moved on. */
  later(jobId: number): void {
    const before = this.waiting.get(jobId);
    const since = before?.since ?? Date.now();
    if (before !== undefined) clearTimeout(before.timer);
    const rest = Math.max(0, Math.min(REST_MS, since + MOST_MS - Date.now()));
    const timer = setTimeout(() => void this.write(jobId).catch(() => this.later(jobId)), rest);
    timer.unref();
    this.waiting.set(jobId, { since, timer });
  }

  /** Writes what is in memory of a job, if it is ahead of what is stored. */
  async write(jobId: number): Promise<void> {
    const held = this.waiting.get(jobId);
    if (held !== undefined) clearTimeout(held.timer);
    this.waiting.delete(jobId);
    await this.running.get(jobId);
    // It may have made room for others meanwhile; then it comes back from the edits.
    const document = this.documents.inMemory(jobId) ?? (await this.latestOf(jobId));
    if (document === undefined) return;
    const writing = this.put(jobId, document.revision, document.design);
    this.running.set(jobId, writing);
    try {
      await writing;
    } finally {
      this.running.delete(jobId);
    }
  }

  /** The latest document; undefined where the job is gone. */
  private async latestOf(jobId: number): Promise<OpenDocument | undefined> {
    try {
      return await this.documents.latest(jobId);
    } catch (error) {
      if (error instanceof RefusalError && error.code === 'NOT_FOUND') return undefined;
      throw error;
    }
  }

  private async put(jobId: number, revision: number, design: Design): Promise<void> {
    const text = JSON.stringify(design);
    const made = await this.models.edits.findOne({
      where: { jobId, revision },
      attributes: ['author', 'at'],
    });
    await this.models.jobs.update(
      {
        ...(made === null ? {} : { changedBy: made.author, changedAt: made.at ?? new Date() }),
        revision,
        document: text,
        documentRevision: revision,
        name: design.name,
        ...(await this.shown(text)),
      },
      // Another server may have written a later one.
      { where: { id: jobId, documentRevision: { [Op.lt]: revision } } },
    );
    const last =
      (await this.models.revisions.max<number | null, RevisionRow>('number', { where: { jobId } })) ?? 0;
    if (Math.floor(revision / SNAPSHOT_EVERY) > Math.floor(last / SNAPSHOT_EVERY))
      await keepRevision(this.models, jobId, revision, text);
  }

  /** What the list shows of a document; one that takes too long is written all the same, and says so. */
  private async shown(text: string): Promise<{ summary: string; usedTypes?: string }> {
    try {
      return await this.pool.summary(text);
    } catch (error) {
      if (error instanceof RefusalError && error.code === 'TOO_LONG')
        return { summary: SUMMARY.write(TOO_LARGE) };
      throw error;
    }
  }

  /** Writes what waits of some jobs now, so that their summaries are those of the latest revision. */
  async settle(jobIds: readonly number[]): Promise<void> {
    for (const jobId of jobIds) {
      if (!this.waiting.has(jobId) && !this.running.has(jobId)) continue;
      // One that cannot be written now keeps nobody from the list.
      await this.write(jobId).catch(() => this.later(jobId));
    }
  }

  /** Documents that an earlier server left behind their edits are caught up and written out. */
  async catchUp(): Promise<void> {
    for (const jobId of await this.documents.behind()) {
      await this.documents.latest(jobId);
      await this.write(jobId);
    }
  }

  /** Everything that waits is written now: the server is being stopped. */
  async flush(): Promise<void> {
    for (const jobId of [...this.waiting.keys()]) await this.write(jobId).catch(() => undefined);
    await Promise.allSettled(this.running.values());
  }
}
