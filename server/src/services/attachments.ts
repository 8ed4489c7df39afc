import type { wire } from '@bastion/core';
import { RefusalError } from '../errors.ts';
import type { Models } from '../models/models.ts';
import type { Pool } from '../work/pool.ts';
import type { AttachmentRow } from '../models/attachments.ts';
import { canNote, type Person } from './accounts.ts';
import type { Jobs } from './jobs.ts';
import type { PhotoStore } from './photoStore.ts';
import { isTaken } from './taken.ts';

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
  readonly photos: PhotoStore;
  readonly now: () => Date;
}

/** Photos of a job: bytes on disk under their hash, what is known of them in the table. */
export function attachments({ models, jobs: jobService, pool, photos, now }: AttachmentOptions) {
  const keptBefore = async (jobId: number, deviceKey: string | undefined): Promise<AttachmentRow | null> =>
    deviceKey === undefined ? null : models.attachments.findOne({ where: { jobId, deviceKey } });
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
      given: {
        readonly name: string;
        readonly photo: Buffer;
        readonly thumbnail: Buffer;
        /** Made on the device: the same key sent again is answered with what is kept. */
        readonly key?: string | undefined;
      },
    ): Promise<wire.Attachment> => {
      await jobService.latestRevision(person, jobId);
      if (!canNote(person)) throw new RefusalError('NOT_ALLOWED');
      const before = await keptBefore(jobId, given.key);
      if (before !== null) return attachmentOf(before);
      if ((await models.attachments.count({ where: { jobId } })) >= MOST_PER_JOB)
        throw new RefusalError('TOO_MANY_PICTURES');
      const { mediaType, width, height } = await pool.picture(given.photo);
      const small = await pool.picture(given.thumbnail);
      if (small.width > MOST_THUMBNAIL_SIDE || small.height > MOST_THUMBNAIL_SIDE)
        throw new RefusalError('NOT_A_PICTURE');
      const values = {
        jobId,
        name: given.name.slice(0, 120) || 'photo',
        mediaType,
        width,
        height,
        bytes: given.photo.length,
        hash: await photos.keep(given.photo),
        thumbnailHash: await photos.keep(given.thumbnail),
        deviceKey: given.key ?? null,
        addedBy: person.name,
        addedAt: now(),
      };
      try {
        return attachmentOf(await models.attachments.create(values));
      } catch (error) {
        // The same photo, sent twice at once: one of the two is kept.
        const first = isTaken(error) ? await keptBefore(jobId, given.key) : null;
        if (first === null) throw error;
        return attachmentOf(first);
      }
    },

    photo: async (person: Person, id: number): Promise<PictureBytes> => {
      const row = await find(person, id);
      return { mediaType: row.mediaType, bytes: await photos.fetch(row.hash) };
    },

    thumbnail: async (person: Person, id: number): Promise<PictureBytes> => {
      const bytes = await photos.fetch((await find(person, id)).thumbnailHash);
      return { mediaType: (await pool.picture(bytes)).mediaType, bytes };
    },
  };
}

export type Attachments = ReturnType<typeof attachments>;
