import type { FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Audit } from '../services/audit.ts';
import type { Pool } from '../work/pool.ts';
import type { Jobs } from '../services/jobs.ts';
import type { Runs } from '../services/runs.ts';
import { jobId } from './jobs.ts';
import { runId } from './runs.ts';
import { personOf } from './sessionGuard.ts';

interface Options {
  readonly jobs: Jobs;
  readonly runs: Runs;
  readonly audit: Audit;
  readonly pool: Pool;
  readonly now: () => Date;
}

async function send(reply: FastifyReply, name: string, pdf: Promise<Buffer>): Promise<FastifyReply> {
  const file = name.replace(/[^A-Za-z0-9 _-]/g, '').slice(0, 80);
  return reply
    .header('content-type', 'application/pdf')
    .header('content-disposition', `inline; filename="${file}.pdf"`)
    .send(await pdf);
}

export const reportRoutes: FastifyPluginAsyncZod<Options> = async (app, { jobs, runs, audit, pool, now }) => {
  /** What leaves the server as a file is told. */
  app.addHook('onResponse', async (request, reply) => {
    if (reply.statusCode === 200 && request.method === 'GET')
      await audit.add(personOf(request), 'exported', request.url);
  });

  const documentOf = async (request: FastifyRequest, id: number) => {
    const { design, revision } = await jobs.design(personOf(request), id);
    return { name: design.name, revision, text: JSON.stringify(design) };
  };

  app.get('/jobs/:jobId/limits.pdf', { schema: { params: jobId } }, async (request, reply) => {
    const { name, ...given } = await documentOf(request, request.params.jobId);
    return send(reply, `${name} limits`, pool.paper({ kind: 'limits', ...given, madeAt: now() }));
  });

  app.get('/jobs/:jobId/rehearsals.pdf', { schema: { params: jobId } }, async (request, reply) => {
    const { name, ...given } = await documentOf(request, request.params.jobId);
    return send(reply, `${name} rehearsal`, pool.paper({ kind: 'rehearsals', ...given, madeAt: now() }));
  });

  app.get('/jobs/:jobId/drilling.pdf', { schema: { params: jobId } }, async (request, reply) => {
    const { name, ...given } = await documentOf(request, request.params.jobId);
    return send(reply, `${name} drilling marks`, pool.paper({ kind: 'drilling', ...given, madeAt: now() }));
  });

  app.get(
    '/jobs/:jobId/drawing.pdf',
    { schema: { params: jobId, querystring: z.object({ mode: z.string().max(200).optional() }) } },
    async (request, reply) => {
      const { name, ...given } = await documentOf(request, request.params.jobId);
      const { mode } = request.query;
      const made = { mode, name: personOf(request).name, madeAt: now() };
      return send(reply, `${name} single line`, pool.paper({ kind: 'drawing', ...given, ...made }));
    },
  );

  app.get('/runs/:runId/record.pdf', { schema: { params: runId } }, async (request, reply) => {
    const run = await runs.open(personOf(request), request.params.runId);
    const { name: jobName } = await documentOf(request, run.jobId);
    const made = pool.paper({ kind: 'record', run, jobName, madeAt: now() });
    return send(reply, `${jobName} islanding test ${run.number}`, made);
  });
  await Promise.resolve();
};
