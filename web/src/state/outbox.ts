import { type Edit, wire } from '@bastion/core';
import { z } from 'zod';

/** Batches that the server has not confirmed yet, kept on this device so that a reload or a crash loses nothing. */
const stored = z.array(wire.editBatch);

const keyOf = (jobId: number): string => `bastion.outbox.${jobId}`;

export function readOutbox(jobId: number): wire.EditBatch[] {
  const text = localStorage.getItem(keyOf(jobId));
  if (text === null) return [];
  try {
    return stored.parse(JSON.parse(text));
  } catch {
    // Written by an older version or damaged: nothing in it can be applied with confidence.
    localStorage.removeItem(keyOf(jobId));
    return [];
  }
}

export function writeOutbox(jobId: number, batches: readonly wire.EditBatch[]): void {
  if (batches.length === 0) localStorage.removeItem(keyOf(jobId));
  else localStorage.setItem(keyOf(jobId), JSON.stringify(batches));
}

export function newBatch(baseRevision: number, patches: Edit[]): wire.EditBatch {
  return { baseRevision, editId: crypto.randomUUID(), patches };
}
