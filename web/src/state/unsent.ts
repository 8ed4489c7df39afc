import { wire } from '@bastion/core';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { z } from 'zod';
import { openWindows, windowId } from './windowId.ts';

/** A batch of edits that the server has not confirmed. */
const keptBatch = z.object({
  id: z.string(),
  kind: z.literal('batch'),
  owner: z.string(),
  window: z.string(),
  order: z.number(),
  batch: wire.editBatch,
});
/** A reading that the server has not confirmed. Its key is made on the device, so that it is recorded once. */
const keptReading = z.object({
  id: z.string(),
  kind: z.literal('reading'),
  owner: z.string(),
  order: z.number(),
  takenAt: z.string(),
  /** Corrects what was taken before it; which reading that is, the server's list tells when this one goes out. */
  isCorrection: z.boolean(),
  reading: wire.newReading,
});
/** A photo that the server has not confirmed, with the line of the delivery list that it belongs to. */
const keptPhoto = z.object({
  id: z.string(),
  kind: z.literal('photo'),
  owner: z.string(),
  order: z.number(),
  lineId: z.string(),
  what: z.string(),
  name: z.string(),
  photo: z.instanceof(Blob),
  thumbnail: z.instanceof(Blob),
});
type KeptPhoto = z.infer<typeof keptPhoto>;
type KeptBatch = z.infer<typeof keptBatch>;
type KeptReading = z.infer<typeof keptReading>;

/** A photo that waits on this device. */
export type WaitingPhoto = Omit<KeptPhoto, 'kind' | 'owner' | 'order'>;
/** A reading that waits on this device. */
export type WaitingReading = Pick<KeptReading, 'takenAt' | 'isCorrection' | 'reading'>;

interface Shape extends DBSchema {
  kept: { key: string; value: KeptBatch | KeptReading | KeptPhoto; indexes: { owner: string } };
}

/** Whether a window is gone cannot always be told; then what it left so long ago is taken over, ms. */
const GONE_AFTER_MS = 30_000;

let opened: Promise<IDBPDatabase<Shape>> | undefined;

function database(): Promise<IDBPDatabase<Shape>> {
  opened ??= openDB<Shape>('bastion-unsent', 1, {
    upgrade: (made) => void made.createObjectStore('kept', { keyPath: 'id' }).createIndex('owner', 'owner'),
  });
  // A store that was refused is asked for again with the next entry.
  opened.catch(() => (opened = undefined));
  return opened;
}

let last = 0;
/** Rises with every entry, also within a millisecond. */
const nextOrder = (): number => (last = Math.max(Date.now(), last + 0.001));

/** What belongs to somebody and a job: nobody else who signs in on this device sees, sends or deletes it. */
const ofJob = (userId: number, jobId: number): string => `user ${userId} job ${jobId}`;
const ofRun = (userId: number, runId: number): string => `user ${userId} run ${runId}`;

/**
 * What is not with the server yet, on this device: it belongs to the person and the job. A window sends what it has typed itself, and
 * takes over what a window that is gone has left.
 */
export const unsent = {
  putBatch: async (userId: number, jobId: number, batch: wire.EditBatch): Promise<void> => {
    const [db, window] = await Promise.all([database(), windowId()]);
    const before = await db.get('kept', batch.editId);
    await db.put('kept', {
      id: batch.editId,
      kind: 'batch',
      owner: ofJob(userId, jobId),
      window,
      order: before?.order ?? nextOrder(),
      batch,
    });
  },

  remove: async (id: string): Promise<void> => (await database()).delete('kept', id),

  /** Batches that this window, or one that is gone, has left of a job, in the order in which they were typed. */
  adopt: async (userId: number, jobId: number): Promise<wire.EditBatch[]> => {
    const [db, window, open] = await Promise.all([database(), windowId(), openWindows()]);
    const found = (await db.getAllFromIndex('kept', 'owner', ofJob(userId, jobId))).flatMap((one) => {
      const read = keptBatch.safeParse(one);
      return read.success ? [read.data] : [];
    });
    const isGone = (one: KeptBatch): boolean =>
      one.window === window ||
      (open === undefined ? Date.now() - one.order > GONE_AFTER_MS : !open.has(one.window));
    const left = found.filter(isGone).sort((a, b) => a.order - b.order);
    for (const one of left) await db.put('kept', { ...one, window });
    return left.map(({ batch }) => batch);
  },

  putReading: async (userId: number, runId: number, waiting: WaitingReading): Promise<void> => {
    const db = await database();
    await db.put('kept', {
      ...waiting,
      id: waiting.reading.key ?? crypto.randomUUID(),
      kind: 'reading',
      owner: ofRun(userId, runId),
      order: nextOrder(),
    });
  },

  putPhoto: async (userId: number, jobId: number, photo: WaitingPhoto): Promise<void> => {
    const db = await database();
    await db.put('kept', { ...photo, kind: 'photo', owner: ofJob(userId, jobId), order: nextOrder() });
  },

  /** Photos that wait of a job, in the order in which they were taken, whichever window has taken them: each is kept once under its id. */
  photos: async (userId: number, jobId: number): Promise<WaitingPhoto[]> => {
    const found = await (await database()).getAllFromIndex('kept', 'owner', ofJob(userId, jobId));
    return found
      .flatMap((one) => {
        const read = keptPhoto.safeParse(one);
        return read.success ? [read.data] : [];
      })
      .sort((a, b) => a.order - b.order);
  },

  /** What waits of a run, in the order in which it was taken. */
  readings: async (userId: number, runId: number): Promise<WaitingReading[]> => {
    const found = await (await database()).getAllFromIndex('kept', 'owner', ofRun(userId, runId));
    return found
      .flatMap((one) => {
        const read = keptReading.safeParse(one);
        return read.success ? [read.data] : [];
      })
      .sort((a, b) => a.order - b.order);
  },
};
