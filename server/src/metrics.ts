import { timingSafeEqual } from 'node:crypto';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { routeOf } from './log.ts';

/** What the figures of a server are drawn from besides its requests. */
export interface Measured {
  readonly waitingTasks: () => number;
  readonly openDocuments: () => number;
}

const BUCKETS_S = [0.002, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 1, 5];

/** Counts and times of requests, and the state of the process, in the text form that is read from outside. */
export function metricsOf(app: FastifyInstance, measured: Measured): Registry {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const durations = new Histogram({
    name: 'bastion_request_seconds',
    help: 'Requests that were answered, by route and status.',
    labelNames: ['route', 'status'],
    buckets: BUCKETS_S,
    registers: [registry],
  });
  const gauge = (name: string, help: string, value: () => number): Gauge =>
    new Gauge({
      name,
      help,
      registers: [registry],
      collect() {
        this.set(value());
      },
    });
  gauge('bastion_tasks_waiting', 'Tasks that wait for a thread.', measured.waitingTasks);
  gauge('bastion_documents_open', 'Documents that are kept in memory.', measured.openDocuments);
  app.addHook('onResponse', (request, reply, done) => {
    durations.observe(
      { route: routeOf(request), status: String(reply.statusCode) },
      reply.elapsedTime / 1000,
    );
    done();
  });
  return registry;
}

/** Whether a request carries the token that was set for whoever reads the figures. */
export function hasToken(request: FastifyRequest, token: string | undefined): boolean {
  const given = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1];
  if (token === undefined || given === undefined) return false;
  const [a, b] = [Buffer.from(given), Buffer.from(token)];
  return a.length === b.length && timingSafeEqual(a, b);
}
