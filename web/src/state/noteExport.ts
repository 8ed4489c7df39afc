import { api } from '../api/client.ts';
import { useJob } from './job.ts';

/** Tells the server that a file of the open job went out. Without a connection the file goes out all the same. */
export function noteExport(kind: 'json' | 'csv' | 'xlsx' | 'svg' | 'dxf' | 'cff'): void {
  const { job } = useJob.getState();
  if (job !== undefined) void api.tellExport(job.id, kind).catch(() => undefined);
}
