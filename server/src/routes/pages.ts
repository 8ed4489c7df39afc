import fastifyStatic from '@fastify/static';
import type { FastifyInstance } from 'fastify';
import { RefusalError } from '../errors.ts';

/** The built pages. Any address that is not a file and not the API gets the page, which finds its own way. */
export async function pageRoutes(app: FastifyInstance, { folder }: { folder: string }): Promise<void> {
  await app.register(fastifyStatic, {
    root: folder,
    wildcard: false,
    preCompressed: true,
    setHeaders: (reply, path) => {
      const lasting = path.includes('/assets/');
      void reply.header('cache-control', lasting ? 'public, max-age=31536000, immutable' : 'no-cache');
    },
  });
  app.get('/*', { schema: { hide: true } }, (request, reply) => {
    if (request.url.startsWith('/api/') || request.url.startsWith('/assets/'))
      throw new RefusalError('NOT_FOUND');
    return reply.sendFile('index.html');
  });
}
