import type { wire } from '@bastion/core';
import { RefusalError } from '../errors.ts';
import type { CaptureRow } from '../models/captures.ts';
import type { Models } from '../models/models.ts';
import { canTest, type Person } from './accounts.ts';
import type { Jobs } from './jobs.ts';
import type { PhotoStore } from './photoStore.ts';
import { isTaken } from './taken.ts';

/** More captures than a test has steps, fewer than fill a disk. */
const MOST_PER_JOB = 200;
/** What a reader of captures knows. */
const ENDING = /\.(cff|csv|txt|tsv)$/iu;

export interface CapturesOptions {
  readonly models: Models;
  readonly jobs: Jobs;
  /** Where the bytes lie, beside those of photos. */
  readonly files: PhotoStore;
  readonly now: () => Date;
}

const captureOf = ({ id, name, bytes }: CaptureRow): wire.Capture => ({ id, name, bytes });

/** Captures that readings were taken from. The same bytes are kept once in a job. */
export function captures({ models, jobs, files, now }: CapturesOptions) {
  return {
    add: async (person: Person, jobId: number, name: string, bytes: Buffer): Promise<wire.Capture> => {
      await jobs.latestRevision(person, jobId);
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      if (!ENDING.test(name) || bytes.length === 0) throw new RefusalError('NOT_A_CAPTURE');
      if ((await models.captures.count({ where: { jobId } })) >= MOST_PER_JOB)
        throw new RefusalError('TOO_MANY_CAPTURES');
      const hash = await files.keep(bytes);
      const before = await models.captures.findOne({ where: { jobId, hash } });
      if (before !== null) return captureOf(before);
      try {
        const added = { addedBy: person.name, addedAt: now() };
        return captureOf(await models.captures.create({ jobId, name, bytes: bytes.length, hash, ...added }));
      } catch (error) {
        // The same capture, sent twice at once: one of the two is kept.
        const first = isTaken(error) ? await models.captures.findOne({ where: { jobId, hash } }) : null;
        if (first === null) throw error;
        return captureOf(first);
      }
    },

    fetch: async (person: Person, id: number): Promise<{ readonly name: string; readonly bytes: Buffer }> => {
      const row = await models.captures.findByPk(id);
      if (row === null) throw new RefusalError('NOT_FOUND');
      await jobs.latestRevision(person, row.jobId);
      return { name: row.name, bytes: await files.fetch(row.hash) };
    },
  };
}

export type Captures = ReturnType<typeof captures>;
