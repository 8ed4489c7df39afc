import { wire } from '@bastion/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { Types } from '../services/types.ts';
import { personOf } from './sessionGuard.ts';

export const typeRoutes: FastifyPluginAsyncZod<{ types: Types }> = async (app, { types }) => {
  app.get('/types', { schema: { response: { 200: wire.catalogue } } }, (request) =>
    types.list(personOf(request)),
  );
  app.post('/types', { schema: { body: wire.keepTypes, response: { 200: wire.catalogue } } }, (request) =>
    types.keep(personOf(request), request.body.types),
  );
  app.delete(
    '/types/:typeId',
    { schema: { params: z.object({ typeId: z.string().max(40) }) } },
    async (request, reply) => {
      await types.remove(personOf(request), request.params.typeId);
      return reply.status(204).send();
    },
  );
  await Promise.resolve();
};
