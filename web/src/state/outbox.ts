import { wire } from '@bastion/core';
import { z } from 'zod';

const stored = z.array(wire.editBatch);

const keyOf = (userId: number, jobId: number): string => `bastion.left.${userId}.${jobId}`;
/** As an earlier version has left them, without saying whose they are. */
const legacyKeyOf = (jobId: number): string => `bastion.outbox.${jobId}`;

/** Takes what lies under a key out of the browser's store, once. */
function taken(key: string): wire.EditBatch[] {
  try {
    const text = localStorage.getItem(key);
    if (text === null) return [];
    localStorage.removeItem(key);
    return stored.parse(JSON.parse(text));
  } catch {
    // Damaged, or of another shape: nothing in it can be applied with confidence.
    return [];
  }
}

/**
 * Keeps batches at the last moment of a window: the store of everything unsent answers later, and a window that closes does not wait
 * for it. A batch that has arrived all the same is known by its id.
 */
export function leaveBehind(userId: number, jobId: number, batches: readonly wire.EditBatch[]): void {
  if (batches.length === 0) return;
  try {
    // Another window of the job may have left something here a moment ago.
    const ids = new Set(batches.map(({ editId }) => editId));
    const before = taken(keyOf(userId, jobId)).filter(({ editId }) => !ids.has(editId));
    localStorage.setItem(keyOf(userId, jobId), JSON.stringify([...before, ...batches]));
  } catch {
    // The store is full or refused; whoever types was told so before.
  }
}

/** Batches that a window of this person, or an earlier version, has left in this browser: taken out of it once. */
export const leftBehind = (userId: number, jobId: number): wire.EditBatch[] => [
  ...taken(legacyKeyOf(jobId)),
  ...taken(keyOf(userId, jobId)),
];
