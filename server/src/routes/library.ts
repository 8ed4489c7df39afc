import { wire } from '@bastion/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { Library } from '../services/library.ts';
import { personOf } from './sessionGuard.ts';

export const libraryRoutes: FastifyPluginAsyncZod<{ library: Library }> = async (app, { library }) => {
  app.get('/library', { schema: { response: { 200: wire.library } } }, (request) =>
    library.list(personOf(request)),
  );
  app.put(
    '/library',
    { schema: { body: wire.libraryItem, response: { 200: wire.libraryEntry } } },
    (request) => library.put(personOf(request), request.body),
  );
  app.delete(
    '/library/:id',
    { schema: { params: z.object({ id: z.coerce.number().int().positive() }) } },
    async (request, reply) => {
      await library.remove(personOf(request), request.params.id);
      return reply.status(204).send();
    },
  );
  await Promise.resolve();
};
