import { problemsFrom, wire } from '@bastion/core';
import { RefusalError } from '../errors.ts';

/** Reads a batch of edits from its text. What is not in the form is refused with its places. */
export function readBatch(text: string): wire.EditBatch {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new RefusalError('REQUEST_INVALID', { problems: [{ path: [], message: 'is not JSON' }] });
  }
  const read = wire.editBatch.safeParse(value);
  if (!read.success)
    throw new RefusalError('REQUEST_INVALID', { problems: problemsFrom(read.error).slice(0, 100) });
  return read.data;
}
