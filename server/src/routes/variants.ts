import { wire } from '@bastion/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { Variants } from '../services/variants.ts';
import { jobId } from './jobs.ts';
import { personOf } from './sessionGuard.ts';

export const variantRoutes: FastifyPluginAsyncZod<{ variants: Variants }> = async (app, { variants }) => {
  app.get(
    '/jobs/:jobId/variants',
    { schema: { params: jobId, response: { 200: z.array(wire.variant) } } },
    (request) => variants.list(personOf(request), request.params.jobId),
  );
  app.post(
    '/jobs/:jobId/variants',
    {
      schema: {
        params: jobId,
        body: z.strictObject({ name: z.string().trim().min(1).max(60) }),
        response: { 201: z.object({ id: z.number() }) },
      },
    },
    async (request, reply) =>
      reply
        .status(201)
        .send({ id: await variants.create(personOf(request), request.params.jobId, request.body.name) }),
  );
  app.delete('/jobs/:jobId/variant', { schema: { params: jobId } }, async (request, reply) => {
    await variants.remove(personOf(request), request.params.jobId);
    return reply.status(204).send();
  });
  await Promise.resolve();
};
