import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { Accounts } from '../services/accounts.ts';
import { tokenOf } from './sessionGuard.ts';

/** How often each stream asks whether its session is still there. */
const SESSION_EVERY_MS = 3000;

type Send = (text: string) => void;
type OpenStream = (request: FastifyRequest, reply: FastifyReply, begin: (send: Send) => () => void) => void;

/**
 * Server-sent events for one window: they end with its session and with the server. `begin` starts what is told and answers how it is
 * stopped.
 */
export function streams(app: Pick<FastifyInstance, 'addHook'>, accounts: Accounts): OpenStream {
  const open = new Set<() => void>();
  app.addHook('preClose', async () => {
    for (const close of open) close();
    await Promise.resolve();
  });
  return (request, reply, begin) => {
    const token = tokenOf(request);
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
    let isOpen = true;
    const stop = begin((text) => {
      if (isOpen) raw.write(text);
    });
    const look = async (): Promise<void> => {
      try {
        if ((await accounts.whoHas(token)) !== undefined) return;
        // Signed out, disabled or given another role elsewhere: this window hears it, and nothing more.
        raw.write('event: signed-out\ndata: 0\n\n');
      } catch {
        // The database is gone for now; the window asks again when it reconnects.
      }
      close();
    };
    const timer = setInterval(() => void look(), SESSION_EVERY_MS);
    const close = (): void => {
      if (!isOpen) return;
      isOpen = false;
      clearInterval(timer);
      stop();
      open.delete(close);
      raw.end();
    };
    open.add(close);
    raw.on('close', close);
  };
}
