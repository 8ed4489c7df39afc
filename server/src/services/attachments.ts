import { createHash } from 'node:crypto';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { wire } from '@bastion/core';
import { RefusalError } from '../errors.ts';
import type { Models } from '../models/models.ts';
import type { Pool } from '../work/pool.ts';
import type { AttachmentRow } from '../models/attachments.ts';
import { canTest, type Person } from './accounts.ts';
import type { Jobs } from './jobs.ts';

/** More photos than a job needs, fewer than fill a disk. */
const MOST_PER_JOB = 500;
/** A small picture for a list is small, points. */
const MOST_THUMBNAIL_SIDE = 640;

const attachmentOf = (row: AttachmentRow): wire.Attachment => ({
  id: row.id,
  name: row.name,
  width: row.width,
  height: row.height,
  bytes: row.bytes,
  addedBy: row.addedBy,
  addedAt: row.addedAt.toISOString(),
});

export interface PictureBytes {
  readonly mediaType: string;
  readonly bytes: Buffer;
}

export interface AttachmentOptions {
  readonly models: Models;
  readonly jobs: Jobs;
  readonly pool: Pool;
  /** Where the bytes lie. */
  readonly folder: string;
  readonly now: () => Date;
}

/** Photos of a job: bytes on disk under their hash, what is known of them in the table. */
export function attachments({ models, jobs: jobService, pool, folder, now }: AttachmentOptions) {
  const keep = async (bytes: Buffer): Promise<string> => {
    const hash = createHash('sha256').update(bytes).digest('hex');
    const place = join(folder, hash.slice(0, 2));
    await mkdir(place, { recursive: true });
    await writeFile(join(place, hash), bytes);
    return hash;
  };
  const fetch = (hash: string): Promise<Buffer> => readFile(join(folder, hash.slice(0, 2), hash));
  const find = async (person: Person, id: number): Promise<AttachmentRow> => {
    const row = await models.attachments.findByPk(id);
    if (row === null) throw new RefusalError('NOT_FOUND');
    await jobService.latestRevision(person, row.jobId);
    return row;
  };

  return {
    list: async (person: Person, jobId: number): Promise<wire.Attachment[]> => {
      await jobService.latestRevision(person, jobId);
      return (await models.attachments.findAll({ where: { jobId }, order: ['id'] })).map(attachmentOf);
    },

    add: async (
      person: Person,
      jobId: number,
      given: { readonly name: string; readonly photo: Buffer; readonly thumbnail: Buffer },
    ): Promise<wire.Attachment> => {
      await jobService.latestRevision(person, jobId);
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      if ((await models.attachments.count({ where: { jobId } })) >= MOST_PER_JOB)
        throw new RefusalError('TOO_MANY_PICTURES');
      const { mediaType, width, height } = await pool.picture(given.photo);
      const small = await pool.picture(given.thumbnail);
      if (small.width > MOST_THUMBNAIL_SIDE || small.height > MOST_THUMBNAIL_SIDE)
        throw new RefusalError('NOT_A_PICTURE');
      const row = await models.attachments.create({
        jobId,
        name: given.name.slice(0, 120) || 'photo',
        mediaType,
        width,
        height,
        bytes: given.photo.length,
        hash: await keep(given.photo),
        thumbnailHash: await keep(given.thumbnail),
        addedBy: person.name,
        addedAt: now(),
      });
      return attachmentOf(row);
    },

    photo: async (person: Person, id: number): Promise<PictureBytes> => {
      const row = await find(person, id);
      return { mediaType: row.mediaType, bytes: await fetch(row.hash) };
    },

    thumbnail: async (person: Person, id: number): Promise<PictureBytes> => {
      const bytes = await fetch((await find(person, id)).thumbnailHash);
      return { mediaType: (await pool.picture(bytes)).mediaType, bytes };
    },
  };
}

export type Attachments = ReturnType<typeof attachments>;
