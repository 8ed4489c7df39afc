import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Accounts } from '../services/accounts.ts';
import type { Jobs } from '../services/jobs.ts';
import { jobId } from './jobs.ts';
import { personOf, tokenOf } from './sessionGuard.ts';

/** How often each stream asks whether its session is still there. */
const SESSION_EVERY_MS = 3000;

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
    const told = await jobs.latestRevision(person, request.params.jobId);
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
    raw.write(`data: ${told}\n\n`);
    const stop = jobs.watch(request.params.jobId, told, (revision) => raw.write(`data: ${revision}\n\n`));
    const look = async (): Promise<void> => {
      try {
        if ((await accounts.whoHas(token)) !== undefined) return;
        // Signed out, disabled or given another role elsewhere: this window hears it, and nothing more.
        raw.write('event: signed-out\ndata: 0\n\n');
      } catch {
        // The database is gone for now; the window asks again when it reconnects.
      }
      close();
    };
    const timer = setInterval(() => void look(), SESSION_EVERY_MS);
    const close = (): void => {
      clearInterval(timer);
      stop();
      open.delete(close);
      raw.end();
    };
    open.add(close);
    raw.on('close', close);
  });
  await Promise.resolve();
};
