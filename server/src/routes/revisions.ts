import { wire } from '@bastion/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { Revisions } from '../services/revisions.ts';
import { jobId } from './jobs.ts';
import { personOf } from './sessionGuard.ts';

const revision = jobId.extend({ revision: z.coerce.number().int().positive() });

export const revisionRoutes: FastifyPluginAsyncZod<{ revisions: Revisions }> = async (app, { revisions }) => {
  app.get(
    '/jobs/:jobId/revisions',
    {
      schema: {
        params: jobId,
        querystring: z.object({ before: z.coerce.number().int().positive().optional() }),
        response: { 200: wire.revisionList },
      },
    },
    (request) => revisions.list(personOf(request), request.params.jobId, request.query.before),
  );
  app.get(
    '/jobs/:jobId/revisions/:revision',
    { schema: { params: revision, response: { 200: wire.revisionDocument } } },
    (request) => revisions.open(personOf(request), request.params.jobId, request.params.revision),
  );
  app.post(
    '/jobs/:jobId/revisions/:revision/restore',
    { schema: { params: revision, body: wire.restoreRevision, response: { 200: wire.saved } } },
    async (request) => ({
      revision: await revisions.restore(
        personOf(request),
        request.params.jobId,
        request.params.revision,
        request.body.replaces,
      ),
    }),
  );
  await Promise.resolve();
};
