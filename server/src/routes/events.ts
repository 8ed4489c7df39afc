import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Accounts } from '../services/accounts.ts';
import type { Jobs } from '../services/jobs.ts';
import { jobId } from './jobs.ts';
import { personOf, tokenOf } from './sessionGuard.ts';

/** How often the database is asked for a newer revision. Several server processes may share it, so memory is no guide. */
const LOOK_EVERY_MS = 1500;
/** At every so many looks, whether the session is still there. */
const SESSION_EVERY_LOOKS = 4;

/** Server-sent events: each open window of a job hears the number of every new revision. */
export const eventRoutes: FastifyPluginAsyncZod<{ jobs: Jobs; accounts: Accounts }> = async (
  app,
  { jobs, accounts },
) => {
  const open = new Set<() => void>();
  app.addHook('preClose', async () => {
    for (const close of open) close();
    await Promise.resolve();
  });

  app.get('/jobs/:jobId/events', { schema: { params: jobId, hide: true } }, async (request, reply) => {
    const person = personOf(request);
    const token = tokenOf(request);
    let told = await jobs.latestRevision(person, request.params.jobId);
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
    raw.write(`data: ${told}\n\n`);
    let looks = 0;
    const look = async (): Promise<void> => {
      try {
        looks += 1;
        // Signed out, disabled or given another role elsewhere: this window hears it, and nothing more.
        if (looks % SESSION_EVERY_LOOKS === 0 && (await accounts.whoHas(token)) === undefined) {
          raw.write('event: signed-out\ndata: 0\n\n');
          close();
          return;
        }
        const latest = await jobs.latestRevision(person, request.params.jobId);
        if (latest !== told) raw.write(`data: ${latest}\n\n`);
        told = latest;
      } catch {
        // The job or the database is gone for now; the window asks again when it reconnects.
        close();
      }
    };
    const timer = setInterval(() => void look(), LOOK_EVERY_MS);
    const close = (): void => {
      clearInterval(timer);
      open.delete(close);
      raw.end();
    };
    open.add(close);
    raw.on('close', close);
  });
  await Promise.resolve();
};
