import type { FastifyPluginAsync } from 'fastify';
import type { Registry } from 'prom-client';
import { RefusalError } from '../errors.ts';
import { hasToken } from '../metrics.ts';

/** Figures of the server for whoever runs it: with the token that was set at its start, and for nobody where none was. */
export const metricsRoute: FastifyPluginAsync<{ registry: Registry; token: string | undefined }> = async (
  app,
  { registry, token },
) => {
  app.get('/metrics', { schema: { hide: true } }, async (request, reply) => {
    if (token === undefined) throw new RefusalError('NOT_FOUND');
    if (!hasToken(request, token)) throw new RefusalError('SIGN_IN_NEEDED');
    return reply.header('content-type', registry.contentType).send(await registry.metrics());
  });
  await Promise.resolve();
};
