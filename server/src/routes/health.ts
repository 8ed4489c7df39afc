import { randomUUID } from 'node:crypto';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { Database } from '../database.ts';

const part = z.enum(['ok', 'failing']);
const health = z.object({ status: part, database: part, files: part, version: z.string() });
type Health = z.infer<typeof health>;

interface Options {
  readonly database: Database;
  readonly filesFolder: string;
  readonly version: string;
}

/** An answer holds for so long: asking often costs nobody anything. */
const HOLDS_MS = 1000;

const outcome = async (work: Promise<unknown>): Promise<z.infer<typeof part>> => {
  try {
    await work;
    return 'ok';
  } catch {
    return 'failing';
  }
};

async function writeFileThere(folder: string): Promise<void> {
  const path = join(folder, `.health-${randomUUID()}`);
  await mkdir(folder, { recursive: true });
  await writeFile(path, 'written');
  await rm(path);
}

/** Whether the server can do its work: writing into the database, and into the folder of files. */
export const healthRoute: FastifyPluginAsyncZod<Options> = async (
  app,
  { database, filesFolder, version },
) => {
  let last: { readonly at: number; readonly health: Promise<Health> } | undefined;
  const look = async (): Promise<Health> => {
    const [stored, files] = await Promise.all([
      outcome(database.sequelize.query('REPLACE INTO health (id, at) VALUES (1, NOW(3))')),
      outcome(writeFileThere(filesFolder)),
    ]);
    const status = stored === 'ok' && files === 'ok' ? 'ok' : 'failing';
    return { status, database: stored, files, version };
  };
  app.get('/health', { schema: { response: { 200: health, 503: health } } }, async (_request, reply) => {
    if (last === undefined || Date.now() - last.at > HOLDS_MS) last = { at: Date.now(), health: look() };
    const found = await last.health;
    return reply.status(found.status === 'ok' ? 200 : 503).send(found);
  });
  await Promise.resolve();
};
