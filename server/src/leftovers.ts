import type { FastifyReply, FastifyRequest } from 'fastify';

const LONGEST_WAIT_MS = 10_000;

/**
 * Lets the rest of a body that is refused run out unread, for a while. A socket that is closed with bytes waiting on it is reset, and the
 * reset can overtake the answer: the sender would see a lost connection where the refusal should stand, and try again for ever.
 */
export function letTheRestRunOut(request: FastifyRequest, reply: FastifyReply): void {
  const { raw } = request;
  if (raw.complete) return;
  void reply.removeHeader('connection');
  const timer = setTimeout(() => raw.destroy(), LONGEST_WAIT_MS);
  raw.once('close', () => {
    clearTimeout(timer);
  });
  raw.resume();
}
