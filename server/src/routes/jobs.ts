import { REGIONS, startDesign, wire } from '@bastion/core';
import {
  type FastifyPluginAsyncZod,
  validatorCompiler,
  type ZodTypeProvider,
} from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RefusalError } from '../errors.ts';
import type { Audit } from '../services/audit.ts';
import type { Jobs } from '../services/jobs.ts';
import { readBatch } from '../services/readBatch.ts';
import type { Pool } from '../work/pool.ts';
import { refuseTooMuch } from './jsonBody.ts';
import { personOf } from './sessionGuard.ts';

/** A whole document may be larger than other requests. */
const DOCUMENT_LIMIT = 24 * 1024 * 1024;
/** A batch of edits that is read between other requests has so many characters at most. */
const SHORT = 100_000;

export const jobId = z.object({ jobId: z.coerce.number().int().positive() });

/** The batch of a body that is still text. */
async function batchOf(body: unknown, pool: Pool): Promise<wire.EditBatch> {
  if (typeof body !== 'string') throw new RefusalError('REQUEST_INVALID');
  refuseTooMuch(body);
  return body.length > SHORT ? pool.batch(body) : readBatch(body);
}

/** A batch comes as text. A long one is read in a thread, and what was read there is not read again here. */
const batchRoute: FastifyPluginAsyncZod<{ jobs: Jobs; pool: Pool }> = async (app, { jobs, pool }) => {
  app.setValidatorCompiler<z.core.$ZodType>((route) =>
    route.httpPart === 'body' ? (value: unknown) => ({ value }) : validatorCompiler(route),
  );
  app.post(
    '/jobs/:jobId/edits',
    {
      // Its answer is a few bytes.
      compress: false,
      schema: { params: jobId, body: wire.editBatch, response: { 200: wire.saved } },
      preValidation: async (request) => {
        request.body = await batchOf(request.body, pool);
      },
    },
    (request) => jobs.edit(personOf(request), request.params.jobId, request.body),
  );
  await Promise.resolve();
};

export const jobRoutes: FastifyPluginAsyncZod<{ jobs: Jobs; audit: Audit; pool: Pool }> = async (
  app,
  { jobs, audit, pool },
) => {
  app.get('/jobs', { schema: { response: { 200: z.array(wire.jobSummary) } } }, (request) =>
    jobs.list(personOf(request)),
  );

  app.post(
    '/jobs',
    {
      schema: {
        body: z.strictObject({
          name: z.string().min(1).max(120),
          region: z.enum(REGIONS.map(({ id }) => id)).optional(),
        }),
        response: { 201: z.object({ id: z.number() }) },
      },
    },
    async (request, reply) => {
      const { name, region } = request.body;
      const design = startDesign(
        name,
        REGIONS.find(({ id }) => id === region),
      );
      const id = await jobs.create(personOf(request), JSON.stringify(design));
      return reply.status(201).send({ id });
    },
  );

  app.get('/jobs/:jobId', { schema: { params: jobId, response: { 200: wire.jobDocument } } }, (request) =>
    jobs.open(personOf(request), request.params.jobId),
  );

  // The pages write files of what they hold; that one went out is told here.
  app.post(
    '/jobs/:jobId/exports',
    {
      schema: {
        params: jobId,
        body: z.strictObject({ kind: z.enum(['json', 'csv', 'xlsx', 'svg', 'dxf', 'cff']) }),
        response: { 204: z.undefined() },
      },
    },
    async (request, reply) => {
      const person = personOf(request);
      const revision = await jobs.latestRevision(person, request.params.jobId);
      const { kind } = request.body;
      await audit.add(person, 'exported', `job ${request.params.jobId}, revision ${revision}, as ${kind}`);
      return reply.status(204).send();
    },
  );

  // Whole documents stay text until a thread of the pool has read them.
  await app.register(async (plain) => {
    const whole = plain.withTypeProvider<ZodTypeProvider>();
    whole.removeContentTypeParser('application/json');
    whole.addContentTypeParser(
      'application/json',
      { parseAs: 'string', bodyLimit: DOCUMENT_LIMIT },
      (_request, body, done) => done(null, body),
    );
    await whole.register(batchRoute, { jobs, pool });
    whole.post(
      '/jobs/import',
      {
        bodyLimit: DOCUMENT_LIMIT,
        schema: { body: z.string(), response: { 201: z.object({ id: z.number() }) } },
      },
      async (request, reply) =>
        reply.status(201).send({ id: await jobs.create(personOf(request), request.body) }),
    );

    whole.put(
      '/jobs/:jobId/document',
      {
        bodyLimit: DOCUMENT_LIMIT,
        schema: {
          params: jobId,
          // The revision that the import replaces: where it is no longer the latest, nothing is replaced.
          querystring: z.object({ replaces: z.coerce.number().int().min(0).optional() }),
          body: z.string(),
          response: { 200: wire.saved },
        },
      },
      async (request) => ({
        revision: await jobs.replace(
          personOf(request),
          request.params.jobId,
          request.body,
          request.query.replaces,
        ),
      }),
    );

    await Promise.resolve();
  });
};
