import type { FastifyReply, FastifyRequest } from 'fastify';
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { letTheRestRunOut } from './leftovers.ts';
import { routeOf } from './log.ts';
import { REFUSALS, type RefusalCode, type RefusalDetail, RefusalError } from './errors.ts';

const coded = z.object({ code: z.string().optional(), statusCode: z.number().optional() });

function reply(to: FastifyReply, code: RefusalCode, detail: RefusalDetail = {}): void {
  const { status, message } = REFUSALS[code];
  void to.status(status).send({ code, message, ...detail });
}

/** Turns whatever went wrong into the one shape of refusal. Nothing of the inside leaks out. */
export function handleError(error: unknown, request: FastifyRequest, to: FastifyReply): void {
  if (error instanceof RefusalError) {
    reply(to, error.code, error.detail);
    return;
  }
  if (hasZodFastifySchemaValidationErrors(error)) {
    const problems = error.validation.map((issue) => ({
      path: issue.instancePath.split('/').filter((part) => part !== ''),
      message: issue.message ?? 'is not as expected',
    }));
    reply(to, 'REQUEST_INVALID', { problems });
    return;
  }
  const known = coded.safeParse(error);
  const status = known.success ? known.data.statusCode : undefined;
  if (status === 413) {
    letTheRestRunOut(request, to);
    reply(to, 'DOCUMENT_TOO_LARGE');
  } else if (status === 429) reply(to, 'TOO_MANY_TRIES');
  else if (status !== undefined && status >= 400 && status < 500) reply(to, 'REQUEST_INVALID');
  else {
    request.log.error({ err: error, route: routeOf(request) });
    reply(to, 'INTERNAL');
  }
}
