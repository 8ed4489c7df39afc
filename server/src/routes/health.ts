import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { QueryTypes } from 'sequelize';
import { z } from 'zod';
import type { Database } from '../database.ts';

const health = z.object({
  status: z.enum(['ok', 'failing']),
  database: z.enum(['ok', 'failing']),
  version: z.string(),
});

export const healthRoute: FastifyPluginAsyncZod<{ database: Database; version: string }> = async (
  app,
  { database, version },
) => {
  app.get('/health', { schema: { response: { 200: health, 503: health } } }, async (_request, reply) => {
    try {
      await database.sequelize.query('SELECT 1', { type: QueryTypes.SELECT });
      return { status: 'ok' as const, database: 'ok' as const, version };
    } catch {
      return reply.status(503).send({ status: 'failing', database: 'failing', version });
    }
  });
  await Promise.resolve();
};
