import { sizeProblem } from '@bastion/core';
import type { FastifyInstance } from 'fastify';
import { RefusalError } from '../errors.ts';

/** Refuses a body that holds more than anything that is read here, before anything is made of it. */
export function refuseTooMuch(body: string): void {
  const message = sizeProblem(body);
  if (message !== undefined) throw new RefusalError('TOO_MUCH', { problems: [{ path: [], message }] });
}

/** JSON bodies are measured before they are parsed: a value that is nested deeply costs whoever walks it. */
export function measureJson(app: FastifyInstance): void {
  const parse = app.getDefaultJsonParser('error', 'error');
  app.removeContentTypeParser('application/json');
  app.addContentTypeParser('application/json', { parseAs: 'string' }, (request, body, done) => {
    try {
      refuseTooMuch(String(body));
    } catch (error) {
      done(error instanceof Error ? error : new Error(String(error)));
      return;
    }
    void parse(request, String(body), done);
  });
}
