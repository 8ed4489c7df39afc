import { analyse, SAMPLE_TYPES } from '@bastion/core';
import type { FastifyReply } from 'fastify';
import { z } from 'zod';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { drillingTemplate } from '../reports/drilling.ts';
import { limitsReport } from '../reports/limits.ts';
import { singleLineReport } from '../reports/singleLine.ts';
import { renderPdf } from '../reports/render.ts';
import { testRecord } from '../reports/testRecord.ts';
import type { Audit } from '../services/audit.ts';
import type { Jobs } from '../services/jobs.ts';
import type { Runs } from '../services/runs.ts';
import { jobId } from './jobs.ts';
import { runId } from './runs.ts';
import { personOf } from './sessionGuard.ts';

interface Options {
  readonly jobs: Jobs;
  readonly runs: Runs;
  readonly audit: Audit;
  readonly now: () => Date;
}

async function send(reply: FastifyReply, name: string, pdf: Promise<Buffer>): Promise<FastifyReply> {
  const file = name.replace(/[^A-Za-z0-9 _-]/g, '').slice(0, 80);
  return reply
    .header('content-type', 'application/pdf')
    .header('content-disposition', `inline; filename="${file}.pdf"`)
    .send(await pdf);
}

export const reportRoutes: FastifyPluginAsyncZod<Options> = async (app, { jobs, runs, audit, now }) => {
  /** What leaves the server as a file is told. */
  app.addHook('onResponse', async (request, reply) => {
    if (reply.statusCode === 200 && request.method === 'GET')
      await audit.add(personOf(request), 'exported', request.url);
  });

  app.get('/jobs/:jobId/limits.pdf', { schema: { params: jobId } }, async (request, reply) => {
    const { design, revision } = await jobs.design(personOf(request), request.params.jobId);
    const definition = limitsReport(analyse(design, SAMPLE_TYPES), { revision, madeAt: now() });
    return send(reply, `${design.name} limits`, renderPdf(definition));
  });

  app.get('/jobs/:jobId/drilling.pdf', { schema: { params: jobId } }, async (request, reply) => {
    const { design, revision } = await jobs.design(personOf(request), request.params.jobId);
    const definition = drillingTemplate(analyse(design, SAMPLE_TYPES), { revision, madeAt: now() });
    return send(reply, `${design.name} drilling marks`, renderPdf(definition));
  });

  app.get(
    '/jobs/:jobId/drawing.pdf',
    { schema: { params: jobId, querystring: z.object({ mode: z.string().max(200).optional() }) } },
    async (request, reply) => {
      const person = personOf(request);
      const { design, revision } = await jobs.design(person, request.params.jobId);
      const made = { revision, madeAt: now(), name: person.name };
      const definition = await singleLineReport(analyse(design, SAMPLE_TYPES), request.query.mode, made);
      return send(reply, `${design.name} single line`, renderPdf(definition));
    },
  );

  app.get('/runs/:runId/record.pdf', { schema: { params: runId } }, async (request, reply) => {
    const run = await runs.open(personOf(request), request.params.runId);
    const job = await jobs.open(personOf(request), run.jobId);
    const definition = testRecord(run, { jobName: job.name, madeAt: now() });
    return send(reply, `${job.name} islanding test ${run.number}`, renderPdf(definition));
  });
  await Promise.resolve();
};
