import { siteWire } from '@bastion/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { SiteService } from '../services/site.ts';
import { jobId } from './jobs.ts';
import { personOf } from './sessionGuard.ts';

/** The simulated site of a job. */
export const siteRoutes: FastifyPluginAsyncZod<{ site: SiteService }> = async (app, { site }) => {
  app.post(
    '/jobs/:jobId/site',
    { schema: { params: jobId, response: { 201: siteWire.openSite } } },
    async (request, reply) =>
      reply.status(201).send(await site.open(personOf(request), request.params.jobId)),
  );
  app.get(
    '/jobs/:jobId/site',
    { schema: { params: jobId, response: { 200: siteWire.openSite } } },
    (request) => site.view(personOf(request), request.params.jobId),
  );
  app.get(
    '/jobs/:jobId/site/menu',
    { schema: { params: jobId, response: { 200: siteWire.siteMenu } } },
    (request) => site.menu(personOf(request), request.params.jobId),
  );
  app.post(
    '/jobs/:jobId/site/actions',
    { schema: { params: jobId, body: siteWire.siteAction, response: { 200: siteWire.openSite } } },
    (request) => site.act(personOf(request), request.params.jobId, request.body),
  );
  app.delete('/jobs/:jobId/site', { schema: { params: jobId } }, async (request, reply) => {
    await site.close(personOf(request), request.params.jobId);
    return reply.status(204).send();
  });
  await Promise.resolve();
};
