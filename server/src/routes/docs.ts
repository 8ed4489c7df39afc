import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';

export const docsRoute: FastifyPluginAsyncZod = async (app) => {
  app.get('/docs/json', { schema: { hide: true } }, () => app.swagger());
  await Promise.resolve();
};
