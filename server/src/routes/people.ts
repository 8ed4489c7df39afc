import { peopleWire } from '@bastion/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { Accounts } from '../services/accounts.ts';
import type { People } from '../services/people.ts';
import { personOf, tokenOf } from './sessionGuard.ts';

const personId = z.object({ personId: z.coerce.number().int().positive() });
const sessionId = z.object({ sessionId: z.string().min(1).max(24) });
const NOTHING = z.undefined();

/** People of the firm, for administrators; and what everybody decides about their own account. */
export const peopleRoutes: FastifyPluginAsyncZod<{ people: People; accounts: Accounts }> = async (
  app,
  { people, accounts },
) => {
  app.get('/people', { schema: { response: { 200: z.array(peopleWire.personRow) } } }, (request) =>
    people.list(personOf(request)),
  );
  app.post(
    '/people',
    { schema: { body: peopleWire.invitation, response: { 201: peopleWire.oneTimeLink } } },
    async (request, reply) => reply.status(201).send(await people.invite(personOf(request), request.body)),
  );
  app.put(
    '/people/:personId',
    { schema: { params: personId, body: peopleWire.personChange, response: { 204: NOTHING } } },
    async (request, reply) => {
      await people.change(personOf(request), request.params.personId, request.body);
      return reply.status(204).send();
    },
  );
  app.post(
    '/people/:personId/link',
    { schema: { params: personId, response: { 201: peopleWire.oneTimeLink } } },
    async (request, reply) =>
      reply.status(201).send(await people.reset(personOf(request), request.params.personId)),
  );
  app.get('/audit', { schema: { response: { 200: peopleWire.auditPage } } }, (request) =>
    people.trail(personOf(request)),
  );

  app.post(
    '/me/password',
    { schema: { body: peopleWire.changePassword, response: { 204: NOTHING } } },
    async (request, reply) => {
      const { old, next } = request.body;
      await accounts.changePassword(personOf(request), tokenOf(request), old, next);
      return reply.status(204).send();
    },
  );
  app.get('/me/sessions', { schema: { response: { 200: z.array(peopleWire.ownSession) } } }, (request) =>
    accounts.sessions(personOf(request), tokenOf(request)),
  );
  app.delete(
    '/me/sessions/:sessionId',
    { schema: { params: sessionId, response: { 204: NOTHING } } },
    async (request, reply) => {
      await accounts.endSession(personOf(request), request.params.sessionId);
      return reply.status(204).send();
    },
  );
  await Promise.resolve();
};
