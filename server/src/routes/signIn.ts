import { peopleWire, wire } from '@bastion/core';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RefusalError } from '../errors.ts';
import type { Accounts, OpenSession, Person } from '../services/accounts.ts';
import type { People } from '../services/people.ts';
import { refuseForeignOrigin, SESSION_COOKIE } from './sessionGuard.ts';

interface Options {
  readonly accounts: Accounts;
  readonly people: People;
  readonly demo: boolean;
  readonly secureCookie: boolean;
}

/** Nothing that is sent before signing in is longer, bytes. */
const BODY_LIMIT = 4096;
/** Tries from one address, for passwords, links and codes, and for demo users. */
const PASSWORD_TRIES = { rateLimit: { max: 10, timeWindow: '1 minute' } };
const DEMO_TRIES = { rateLimit: { max: 120, timeWindow: '1 minute' } };
/** Tries on one account, wherever they come from. */
const ACCOUNT_TRIES = { max: 20, timeWindow: '15 minutes' };

const infoOf = ({ id, name, email, role, firm }: Person): wire.UserInfo => ({ id, name, email, role, firm });
const agentOf = (request: FastifyRequest): string => request.headers['user-agent'] ?? '';

const emailOf = z.object({ email: z.string() });
const token = z.object({ token: z.string().min(8).max(80) });

export const signInRoutes: FastifyPluginAsyncZod<Options> = async (
  app,
  { accounts, people, demo, secureCookie },
) => {
  const welcome = (reply: FastifyReply, { token: secret, person, expiresAt }: OpenSession): wire.UserInfo => {
    void reply.setCookie(SESSION_COOKIE, secret, {
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

  const triesOnAccount = app.createRateLimit({
    ...ACCOUNT_TRIES,
    keyGenerator: (request) => emailOf.safeParse(request.body).data?.email.toLowerCase() ?? request.ip,
  });
  const perAccount = async (request: FastifyRequest): Promise<void> => {
    const tried = await triesOnAccount(request);
    if (!tried.isAllowed && tried.isExceeded) throw new RefusalError('TOO_MANY_TRIES');
  };
  const credentials = z.strictObject({ email: z.email().max(190), password: z.string().min(1).max(200) });
  app.post(
    '/session',
    {
      config: PASSWORD_TRIES,
      bodyLimit: BODY_LIMIT,
      preHandler: perAccount,
      schema: { body: credentials, response: { 200: wire.userInfo } },
    },
    async (request, reply) => {
      const { email, password } = request.body;
      return welcome(reply, await accounts.signIn(email, password, agentOf(request)));
    },
  );

  app.get('/session/demo', { schema: { response: { 200: wire.demoUsers } } }, async () => ({
    enabled: demo,
    users: demo ? await accounts.demoUsers() : [],
  }));

  app.post(
    '/session/demo',
    {
      config: DEMO_TRIES,
      bodyLimit: BODY_LIMIT,
      schema: { body: z.strictObject({ userId: z.number().int() }), response: { 200: wire.userInfo } },
    },
    async (request, reply) => {
      if (!demo) throw new RefusalError('NOT_FOUND');
      return welcome(reply, await accounts.signInDemo(request.body.userId, agentOf(request)));
    },
  );

  app.get('/session/first', { schema: { response: { 200: peopleWire.firstStep } } }, async () => ({
    needed: await people.firstIsNeeded(),
  }));
  app.post(
    '/session/first',
    {
      config: PASSWORD_TRIES,
      bodyLimit: BODY_LIMIT,
      schema: { body: peopleWire.firstAdministrator, response: { 200: wire.userInfo } },
    },
    async (request, reply) => welcome(reply, await people.makeFirst(request.body, agentOf(request))),
  );

  app.get(
    '/session/link/:token',
    { config: PASSWORD_TRIES, schema: { params: token, response: { 200: peopleWire.ticketInfo } } },
    (request) => people.ticket(request.params.token),
  );
  app.post(
    '/session/link/:token',
    {
      config: PASSWORD_TRIES,
      bodyLimit: BODY_LIMIT,
      schema: { params: token, body: peopleWire.takeTicket, response: { 200: wire.userInfo } },
    },
    async (request, reply) =>
      welcome(reply, await people.takeTicket(request.params.token, request.body.password, agentOf(request))),
  );

  app.get('/session', { schema: { response: { 200: wire.userInfo } } }, async (request) => {
    const secret = request.cookies[SESSION_COOKIE];
    const person = secret === undefined ? undefined : await accounts.whoHas(secret);
    if (person === undefined) throw new RefusalError('SIGN_IN_NEEDED');
    return infoOf(person);
  });

  app.delete('/session', async (request, reply) => {
    const secret = request.cookies[SESSION_COOKIE];
    if (secret !== undefined) await accounts.signOut(secret);
    return reply.clearCookie(SESSION_COOKIE, { path: '/' }).status(204).send();
  });
  await Promise.resolve();
};
