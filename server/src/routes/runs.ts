import { wire } from '@bastion/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { Runs } from '../services/runs.ts';
import { jobId } from './jobs.ts';
import { personOf } from './sessionGuard.ts';

export const runId = z.object({ runId: z.coerce.number().int().positive() });

export const runRoutes: FastifyPluginAsyncZod<{ runs: Runs }> = async (app, { runs }) => {
  app.get(
    '/jobs/:jobId/runs',
    { schema: { params: jobId, response: { 200: z.array(wire.runSummary) } } },
    (request) => runs.list(personOf(request), request.params.jobId),
  );

  app.post(
    '/jobs/:jobId/runs',
    { schema: { params: jobId, body: wire.startRun.nullish(), response: { 201: wire.testRun } } },
    async (request, reply) =>
      reply.status(201).send(await runs.start(personOf(request), request.params.jobId, request.body?.retest)),
  );

  app.get('/runs/:runId', { schema: { params: runId, response: { 200: wire.testRun } } }, (request) =>
    runs.open(personOf(request), request.params.runId),
  );

  app.post(
    '/runs/:runId/readings',
    { schema: { params: runId, body: wire.newReading, response: { 201: wire.reading } } },
    async (request, reply) =>
      reply.status(201).send(await runs.addReading(personOf(request), request.params.runId, request.body)),
  );

  app.post(
    '/runs/:runId/end',
    { schema: { params: runId, body: wire.endRun, response: { 200: wire.testRun } } },
    (request) => runs.end(personOf(request), request.params.runId, request.body),
  );
  await Promise.resolve();
};
