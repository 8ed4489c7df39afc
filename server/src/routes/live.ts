import { liveWire } from '@bastion/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RefusalError } from '../errors.ts';
import { type Accounts, canTest, type Person } from '../services/accounts.ts';
import type { Jobs } from '../services/jobs.ts';
import type { LiveHub } from '../services/live.ts';
import { jobId } from './jobs.ts';
import { personOf } from './sessionGuard.ts';
import { streams } from './stream.ts';

const ownerOf = ({ id }: Person, job: number): string => `${id} ${job}`;

/** Devices that are read live for a job: set up first, then listened to by server-sent events. */
export const liveRoutes: FastifyPluginAsyncZod<{ live: LiveHub; jobs: Jobs; accounts: Accounts }> = async (
  app,
  { live, jobs, accounts },
) => {
  const stream = streams(app, accounts);
  app.post(
    '/jobs/:jobId/live',
    { schema: { params: jobId, body: liveWire.liveDevice, response: { 201: liveWire.liveLink } } },
    async (request, reply) => {
      const person = personOf(request);
      if (!canTest(person)) throw new RefusalError('NOT_ALLOWED');
      await jobs.latestRevision(person, request.params.jobId);
      const linkId = live.open(ownerOf(person, request.params.jobId), request.body);
      return reply.status(201).send({ linkId });
    },
  );

  app.get(
    '/jobs/:jobId/live/:linkId',
    { schema: { params: jobId.extend({ linkId: z.string().max(60) }), hide: true } },
    async (request, reply) => {
      const person = personOf(request);
      await jobs.latestRevision(person, request.params.jobId);
      const owner = ownerOf(person, request.params.jobId);
      live.mustOwn(owner, request.params.linkId);
      stream(request, reply, (send) =>
        live.listen(request.params.linkId, (message) => send(`data: ${JSON.stringify(message)}\n\n`)),
      );
    },
  );
  await Promise.resolve();
};
