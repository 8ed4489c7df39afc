import { captureInOneFile } from '@bastion/core';
import { api, failureSentence } from '../../../api/client.ts';
import type { OpenCapture } from '../../../workers/wave.ts';

/** What is kept of one capture, bytes; the server takes no more. */
const MOST_BYTES = 12 * 1024 * 1024;

/** Keeps a capture with its job: its id there, or a sentence that says why it is not kept. A reading from it counts all the same. */
export async function keepCapture(jobId: number, { files, name }: OpenCapture): Promise<number | string> {
  const size = files.reduce((sum, file) => sum + file.size, 0);
  if (size > MOST_BYTES)
    return `${name} is larger than ${MOST_BYTES / 1024 / 1024} MB: the reading holds its name, keep the file yourself.`;
  try {
    const read = await Promise.all(
      files.map(async (file) => ({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) })),
    );
    const one = captureInOneFile(read);
    if (one === undefined)
      return `${name} is not kept: it is no capture of one file, or of a .cfg with its .dat.`;
    const bytes = new Uint8Array(one.bytes);
    return (await api.keepCapture(jobId, one.name.slice(-200), new Blob([bytes]))).id;
  } catch (error) {
    return `${name} is not kept: ${failureSentence(error)} The reading holds its name.`;
  }
}
