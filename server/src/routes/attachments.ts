import multipart from '@fastify/multipart';
import { wire } from '@bastion/core';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RefusalError } from '../errors.ts';
import type { Attachments, PictureBytes } from '../services/attachments.ts';
import { jobId } from './jobs.ts';
import { personOf } from './sessionGuard.ts';

/** Largest photo, bytes: a good camera picture, and no film. */
const MOST_BYTES = 12 * 1024 * 1024;
const deviceKey = z.object({ key: z.string().min(8).max(64).optional() });
const attachmentId = z.object({ attachmentId: z.coerce.number().int().positive() });

/** A picture goes out as what it was found to be, and as nothing that a browser could run. */
const sendPicture = (reply: FastifyReply, { mediaType, bytes }: PictureBytes): FastifyReply =>
  reply
    .header('content-type', mediaType)
    .header('content-security-policy', "default-src 'none'; sandbox")
    .header('cache-control', 'private, max-age=86400, immutable')
    .send(bytes);

/** The files of an upload. One that is cut short, or is made otherwise, is refused; what still comes of it is not waited for. */
async function filesOf(
  request: FastifyRequest,
  reply: FastifyReply,
): Promise<Map<string, { name: string; bytes: Buffer }>> {
  const files = new Map<string, { name: string; bytes: Buffer }>();
  try {
    for await (const part of request.files()) {
      const bytes = await part.toBuffer().catch((error: unknown) => {
        throw part.file.truncated ? new RefusalError('PICTURE_TOO_HEAVY') : error;
      });
      files.set(part.fieldname, { name: part.filename, bytes });
    }
  } catch (error) {
    void reply.header('connection', 'close');
    throw error instanceof RefusalError ? error : new RefusalError('UPLOAD_BROKEN');
  }
  return files;
}

export const attachmentRoutes: FastifyPluginAsyncZod<{ attachments: Attachments }> = async (
  app,
  { attachments },
) => {
  await app.register(multipart, { limits: { fileSize: MOST_BYTES, files: 2, fields: 0, parts: 2 } });

  app.get(
    '/jobs/:jobId/attachments',
    { schema: { params: jobId, response: { 200: z.array(wire.attachment) } } },
    (request) => attachments.list(personOf(request), request.params.jobId),
  );

  app.post(
    '/jobs/:jobId/attachments',
    {
      bodyLimit: 2 * MOST_BYTES,
      schema: { params: jobId, querystring: deviceKey, response: { 201: wire.attachment } },
    },
    async (request, reply) => {
      const person = personOf(request);
      if (!request.isMultipart()) throw new RefusalError('NOT_A_PICTURE');
      const files = await filesOf(request, reply);
      const photo = files.get('photo');
      const thumbnail = files.get('thumbnail');
      if (photo === undefined || thumbnail === undefined) throw new RefusalError('NOT_A_PICTURE');
      const added = await attachments.add(person, request.params.jobId, {
        name: photo.name,
        photo: photo.bytes,
        thumbnail: thumbnail.bytes,
        key: request.query.key,
      });
      return reply.status(201).send(added);
    },
  );

  app.get('/attachments/:attachmentId', { schema: { params: attachmentId } }, async (request, reply) =>
    sendPicture(reply, await attachments.photo(personOf(request), request.params.attachmentId)),
  );
  app.get(
    '/attachments/:attachmentId/thumbnail',
    { schema: { params: attachmentId } },
    async (request, reply) =>
      sendPicture(reply, await attachments.thumbnail(personOf(request), request.params.attachmentId)),
  );
};
