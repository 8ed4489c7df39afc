import type { FastifyInstance, FastifyRequest } from 'fastify';
import { RefusalError } from '../errors.ts';
import type { Accounts, Person } from '../services/accounts.ts';

export const SESSION_COOKIE = 'bastion_session';

const people = new WeakMap<FastifyRequest, Person>();

/** Who makes this request. Only behind the guard, which has already looked. */
export function personOf(request: FastifyRequest): Person {
  const person = people.get(request);
  if (person === undefined) throw new RefusalError('SIGN_IN_NEEDED');
  return person;
}

/** The id of whoever makes a request, where that is known: for the log. */
export const askingId = (request: FastifyRequest): number | undefined => people.get(request)?.id;

/** The token of the session that makes this request. Only behind the guard. */
export function tokenOf(request: FastifyRequest): string {
  const token = request.cookies[SESSION_COOKIE];
  if (token === undefined) throw new RefusalError('SIGN_IN_NEEDED');
  return token;
}

/** Whether a changing request comes from our own pages. A browser always says where a cross-site request comes from. */
export function refuseForeignOrigin(request: FastifyRequest): void {
  const { origin, host } = request.headers;
  if (origin === undefined || request.method === 'GET' || request.method === 'HEAD') return;
  let from: string | undefined;
  try {
    from = new URL(origin).host;
  } catch {
    from = undefined;
  }
  if (from !== host) throw new RefusalError('FOREIGN_ORIGIN');
}

/** Every route of this scope needs a session. */
export function sessionGuard(scope: FastifyInstance, accounts: Accounts): void {
  scope.addHook('onRequest', async (request) => {
    refuseForeignOrigin(request);
    const token = request.cookies[SESSION_COOKIE];
    const person = token === undefined ? undefined : await accounts.whoHas(token);
    if (person === undefined) throw new RefusalError('SIGN_IN_NEEDED');
    people.set(request, person);
  });
}
