import type { FastifyInstance, FastifyRequest } from 'fastify';
import { createStream } from 'rotating-file-stream';
import { z } from 'zod';

/** Where lines of the log go. */
export interface LogSink {
  readonly write: (line: string) => void;
}

/** A file of so many bytes is closed and a new one begun; so many old ones stay. */
const FILE_SIZE = '5M';
const MOST_FILES = 10;
const ERROR_LEVEL = 50;
/** Lines of requests that went well are written together: each write costs as much as answering a small request. */
const GATHER_MS = 100;
const MOST_GATHERED = 64_000;

const failed = z.object({
  level: z.number().min(ERROR_LEVEL),
  msg: z.string().default(''),
  route: z.string().optional(),
  err: z.object({ message: z.string() }).optional(),
});

/** The sentence of an error for whoever watches the terminal; undefined for lines that are none. */
export function errorSentence(line: string): string | undefined {
  // Most lines are of requests that went well: those are not read again.
  if (line.startsWith('{"level":30')) return undefined;
  let value: unknown;
  try {
    value = JSON.parse(line);
  } catch {
    return undefined;
  }
  const read = failed.safeParse(value);
  if (!read.success) return undefined;
  const { route, err, msg } = read.data;
  return [route, err?.message ?? msg].filter((part) => part !== undefined && part !== '').join(': ');
}

/**
 * JSON lines in a folder, in files that follow each other. Errors are written at once and told on the terminal as well; other lines
 * follow within a moment, and with the next error at the latest.
 */
export function fileLog(folder: string, tell: (sentence: string) => void): LogSink {
  const stream = createStream('server.jsonl', { path: folder, size: FILE_SIZE, maxFiles: MOST_FILES });
  // A log that cannot be written is no reason to stop serving.
  stream.on('error', (error) => tell(`The log cannot be written: ${error.message}`));
  let gathered = '';
  let timer: NodeJS.Timeout | undefined;
  const flush = (): void => {
    clearTimeout(timer);
    timer = undefined;
    stream.write(gathered);
    gathered = '';
  };
  return {
    write: (line) => {
      gathered += line;
      const sentence = errorSentence(line);
      if (sentence !== undefined) tell(sentence);
      if (sentence !== undefined || gathered.length > MOST_GATHERED) flush();
      // The process does not end before the last lines are written.
      else timer ??= setTimeout(flush, GATHER_MS);
    },
  };
}

interface ToldError {
  readonly [key: string]: unknown;
  readonly type: string;
  readonly message: string;
  readonly stack: string;
}

const causeOf = (error: Error, depth = 0): ToldError => ({
  type: error.name,
  message: error.message,
  stack: error.stack ?? '',
  ...(error.cause instanceof Error && depth < 3 ? { cause: causeOf(error.cause, depth + 1) } : {}),
});

/** What the server's logger is made of. What stands in an error besides its words and its cause, as values of a statement, stays out. */
export const loggerOf = (sink: LogSink) => ({
  level: 'info',
  base: null,
  timestamp: (): string => `,"time":"${new Date().toISOString()}"`,
  serializers: { err: (error: Error) => causeOf(error) },
  stream: sink,
});

/** The route as it is declared: a path that was asked for may hold the token of a one-time link. */
export const routeOf = (request: FastifyRequest): string =>
  `${request.method} ${request.routeOptions.url ?? 'unknown'}`;

/** A line for every request that was answered: what, how it ended, how long it took. No bodies, no cookies, no query. */
export function logRequests(
  app: FastifyInstance,
  whoIs: (request: FastifyRequest) => number | undefined,
): void {
  app.addHook('onResponse', (request, reply, done) => {
    if (request.url.startsWith('/api/'))
      request.log.info({
        route: routeOf(request),
        status: reply.statusCode,
        ms: Math.round(reply.elapsedTime * 10) / 10,
        user: whoIs(request),
      });
    done();
  });
}
