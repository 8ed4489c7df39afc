import { wire } from '@bastion/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RefusalError } from '../errors.ts';
import type { Captures } from '../services/captures.ts';
import { jobId } from './jobs.ts';
import { personOf } from './sessionGuard.ts';

/** What is kept of one capture, bytes: a second of six channels has one or two million. Longer ones can be measured, and stay where they are. */
const MOST_BYTES = 12 * 1024 * 1024;
const captureId = z.object({ captureId: z.coerce.number().int().positive() });

export const captureRoutes: FastifyPluginAsyncZod<{ captures: Captures }> = async (app, { captures }) => {
  app.addContentTypeParser(
    'application/octet-stream',
    { parseAs: 'buffer', bodyLimit: MOST_BYTES },
    (_request, body, done) => done(null, body),
  );

  app.post(
    '/jobs/:jobId/captures',
    {
      bodyLimit: MOST_BYTES,
      schema: {
        params: jobId,
        querystring: z.object({ name: z.string().min(5).max(200) }),
        response: { 201: wire.capture },
      },
    },
    async (request, reply) => {
      const { body } = request;
      if (!Buffer.isBuffer(body)) throw new RefusalError('NOT_A_CAPTURE');
      const person = personOf(request);
      const added = await captures.add(person, request.params.jobId, request.query.name, body);
      return reply.status(201).send(added);
    },
  );

  app.get('/captures/:captureId', { schema: { params: captureId } }, async (request, reply) => {
    const { name, bytes } = await captures.fetch(personOf(request), request.params.captureId);
    return reply
      .header('content-type', 'application/octet-stream')
      .header('content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
      .header('cache-control', 'private, max-age=86400, immutable')
      .send(bytes);
  });
  await Promise.resolve();
};
