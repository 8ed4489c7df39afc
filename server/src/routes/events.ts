import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Accounts } from '../services/accounts.ts';
import type { Jobs } from '../services/jobs.ts';
import { jobId } from './jobs.ts';
import { personOf } from './sessionGuard.ts';
import { streams } from './stream.ts';

/** Each open window of a job hears the number of every new revision. */
export const eventRoutes: FastifyPluginAsyncZod<{ jobs: Jobs; accounts: Accounts }> = async (
  app,
  { jobs, accounts },
) => {
  const stream = streams(app, accounts);
  app.get('/jobs/:jobId/events', { schema: { params: jobId, hide: true } }, async (request, reply) => {
    const job = request.params.jobId;
    const told = await jobs.latestRevision(personOf(request), job);
    stream(request, reply, (send) => {
      send(`data: ${told}\n\n`);
      return jobs.watch(job, told, (revision) => send(`data: ${revision}\n\n`));
    });
  });
  await Promise.resolve();
};
