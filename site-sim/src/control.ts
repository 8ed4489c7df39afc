import { siteWire } from '@bastion/core';
import { timingSafeEqual } from 'node:crypto';
import Fastify, { type FastifyInstance } from 'fastify';
import { serializerCompiler, validatorCompiler, type ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { OpenedSite, Sites } from './sites.ts';

const MOST_BYTES = 24 * 1024 * 1024;
const keyOnly = z.object({ key: z.string().min(1).max(100) });
const openBody = z.strictObject({
  revision: z.number().int(),
  document: z.unknown(),
  seed: z.number().int().min(0),
});

const isSame = (a: string, b: string): boolean =>
  a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b));

/** The way by which the server of the application opens sites and acts on them. Only who has the token is answered. */
export function controlOf(sites: Sites, token: string): FastifyInstance {
  const app = Fastify({ bodyLimit: MOST_BYTES });
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  const routes = app.withTypeProvider<ZodTypeProvider>();
  app.addHook('onRequest', async (request, reply) => {
    if (!isSame(request.headers.authorization ?? '', `Bearer ${token}`)) await reply.status(401).send();
  });
  const found = (key: string): OpenedSite | undefined => sites.find(key);

  routes.post('/sites/:key', { schema: { params: keyOnly, body: openBody } }, async (request, reply) => {
    const { revision, document, seed } = request.body;
    const site = sites.open(request.params.key, revision, document, seed);
    return typeof site === 'string'
      ? reply.status(422).send({ message: site })
      : reply.status(201).send(sites.answer(site, {}));
  });
  routes.get('/sites/:key', { schema: { params: keyOnly } }, async (request, reply) => {
    const site = found(request.params.key);
    return site === undefined ? reply.status(404).send() : reply.send(sites.answer(site, {}));
  });
  routes.get('/sites/:key/menu', { schema: { params: keyOnly } }, async (request, reply) => {
    const site = found(request.params.key);
    return site === undefined ? reply.status(404).send() : reply.send(sites.menu(site));
  });
  routes.post(
    '/sites/:key/actions',
    { schema: { params: keyOnly, body: siteWire.siteAction } },
    async (request, reply) => {
      const site = found(request.params.key);
      return site === undefined ? reply.status(404).send() : reply.send(sites.act(site, request.body));
    },
  );
  routes.delete('/sites/:key', { schema: { params: keyOnly } }, async (request, reply) => {
    sites.close(request.params.key);
    return reply.status(204).send();
  });
  return app;
}
