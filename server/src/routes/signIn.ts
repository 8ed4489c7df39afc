import { wire } from '@bastion/core';
import type { FastifyReply } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RefusalError } from '../errors.ts';
import type { Accounts, OpenSession, Person } from '../services/accounts.ts';
import { refuseForeignOrigin, SESSION_COOKIE } from './sessionGuard.ts';

interface Options {
  readonly people: Accounts;
  readonly demo: boolean;
  readonly secureCookie: boolean;
}

/** Tries a minute from one address, for passwords and for demo users. */
const PASSWORD_TRIES = { rateLimit: { max: 10, timeWindow: '1 minute' } };
const DEMO_TRIES = { rateLimit: { max: 120, timeWindow: '1 minute' } };

const infoOf = ({ id, name, email, role, firm }: Person): wire.UserInfo => ({ id, name, email, role, firm });

export const signInRoutes: FastifyPluginAsyncZod<Options> = async (app, { people, demo, secureCookie }) => {
  const welcome = (reply: FastifyReply, { token, person, expiresAt }: OpenSession): wire.UserInfo => {
    void reply.setCookie(SESSION_COOKIE, token, {
      path: '/',
      httpOnly: true,
      sameSite: 'strict',
      secure: secureCookie,
      expires: expiresAt,
    });
    return infoOf(person);
  };
  app.addHook('onRequest', async (request) => {
    refuseForeignOrigin(request);
    await Promise.resolve();
  });

  const credentials = z.strictObject({ email: z.email().max(190), password: z.string().min(1).max(200) });
  app.post(
    '/session',
    { config: PASSWORD_TRIES, schema: { body: credentials, response: { 200: wire.userInfo } } },
    async (request, reply) => welcome(reply, await people.signIn(request.body.email, request.body.password)),
  );

  app.get('/session/demo', { schema: { response: { 200: wire.demoUsers } } }, async () => ({
    enabled: demo,
    users: demo ? await people.demoUsers() : [],
  }));

  app.post(
    '/session/demo',
    {
      config: DEMO_TRIES,
      schema: { body: z.strictObject({ userId: z.number().int() }), response: { 200: wire.userInfo } },
    },
    async (request, reply) => {
      if (!demo) throw new RefusalError('NOT_FOUND');
      return welcome(reply, await people.signInDemo(request.body.userId));
    },
  );

  app.get('/session', { schema: { response: { 200: wire.userInfo } } }, async (request) => {
    const token = request.cookies[SESSION_COOKIE];
    const person = token === undefined ? undefined : await people.whoHas(token);
    if (person === undefined) throw new RefusalError('SIGN_IN_NEEDED');
    return infoOf(person);
  });

  app.delete('/session', async (request, reply) => {
    const token = request.cookies[SESSION_COOKIE];
    if (token !== undefined) await people.signOut(token);
    return reply.clearCookie(SESSION_COOKIE, { path: '/' }).status(204).send();
  });
  await Promise.resolve();
};
