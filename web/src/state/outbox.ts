import { wire } from '@bastion/core';
import { z } from 'zod';

const stored = z.array(wire.editBatch);

/** Batches that an earlier version has left in this browser: taken out of it once. */
export function legacyOutbox(jobId: number): wire.EditBatch[] {
  const key = `bastion.outbox.${jobId}`;
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
