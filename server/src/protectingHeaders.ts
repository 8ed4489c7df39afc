import { IncomingMessage, ServerResponse } from 'node:http';
import { Socket } from 'node:net';
import helmet from 'helmet';

const CONTENT_SECURITY = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'self'"],
    baseUri: ["'none'"],
    formAction: ["'self'"],
    frameAncestors: ["'none'"],
    imgSrc: ["'self'", 'data:', 'blob:'],
    objectSrc: ["'none'"],
    // Overlays of the interface place themselves with style attributes.
    styleSrc: ["'self'", "'unsafe-inline'"],
  },
};

/**
 * The headers that protect whoever reads an answer of this server. They are the same for every answer, so the dozen steps that make
 * them are gone through once, on an answer that nobody gets, and not with each request.
 */
export function protectingHeaders(isBehindTls: boolean): Promise<readonly (readonly [string, string])[]> {
  const protect = helmet({ contentSecurityPolicy: CONTENT_SECURITY, hsts: isBehindTls });
  const asked = new IncomingMessage(new Socket());
  const answer = new ServerResponse(asked);
  return new Promise((made, failed) => {
    protect(asked, answer, (error?: unknown) => {
      if (error !== undefined) failed(new Error('The protecting headers cannot be made.', { cause: error }));
      else made(answer.getHeaderNames().map((name) => [name, String(answer.getHeader(name))]));
    });
  });
}
