import compress from '@fastify/compress';
import cookie from '@fastify/cookie';
import rateLimit from '@fastify/rate-limit';
import swagger from '@fastify/swagger';
import Fastify, { type FastifyInstance, LogController } from 'fastify';
import { jsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod';
import type { Database } from './database.ts';
import { handleError } from './errorHandler.ts';
import { RefusalError } from './errors.ts';
import { attachmentRoutes } from './routes/attachments.ts';
import { captureRoutes } from './routes/captures.ts';
import { docsRoute } from './routes/docs.ts';
import { eventRoutes } from './routes/events.ts';
import { type LogSink, logRequests, loggerOf } from './log.ts';
import { metricsOf } from './metrics.ts';
import { measureJson } from './routes/jsonBody.ts';
import { healthRoute } from './routes/health.ts';
import { jobRoutes } from './routes/jobs.ts';
import { liveRoutes } from './routes/live.ts';
import { siteRoutes } from './routes/site.ts';
import { libraryRoutes } from './routes/library.ts';
import { pageRoutes } from './routes/pages.ts';
import { peopleRoutes } from './routes/people.ts';
import { revisionRoutes } from './routes/revisions.ts';
import { reportRoutes } from './routes/reports.ts';
import { runRoutes } from './routes/runs.ts';
import { metricsRoute } from './routes/metrics.ts';
import { askingId, sessionGuard } from './routes/sessionGuard.ts';
import { signInRoutes } from './routes/signIn.ts';
import { typeRoutes } from './routes/types.ts';
import { variantRoutes } from './routes/variants.ts';
import { protectingHeaders } from './protectingHeaders.ts';
import { Pool } from './work/pool.ts';
import { accounts } from './services/accounts.ts';
import { audit } from './services/audit.ts';
import { attachments } from './services/attachments.ts';
import { captures } from './services/captures.ts';
import { jobs } from './services/jobs.ts';
import { library } from './services/library.ts';
import { people } from './services/people.ts';
import { liveHub } from './services/live.ts';
import { site, type SiteAccess } from './services/site.ts';
import { photosInDatabase, photosInFolder } from './services/photoStore.ts';
import { revisions } from './services/revisions.ts';
import { runs } from './services/runs.ts';
import { types } from './services/types.ts';
import { variants } from './services/variants.ts';

export interface AppOptions {
  readonly database: Database;
  readonly demo: boolean;
  readonly secureCookie: boolean;
  /** Addresses or networks of the proxies in front of it. */
  readonly trustedProxies: readonly string[];
  readonly version: string;
  /** Folder of the built pages; none in tests that only talk to the API. */
  readonly pagesFolder: string | undefined;
  /** Folder under which photos lie. */
  readonly filesFolder: string;
  readonly now: () => Date;
  readonly photosIn: 'folder' | 'database';
  readonly metricsToken: string | undefined;
  readonly log: LogSink | undefined;
  /** The simulated sites; undefined where there are none. */
  readonly site: SiteAccess | undefined;
  /** Devices beyond this machine that may be read live. */
  readonly liveHosts: readonly string[];
}

/** Largest request body, but for whole documents. */
const BODY_LIMIT = 4 * 1024 * 1024;

/** Builds the server without listening. Every feature is a plugin of its own. */
export async function buildApp(options: AppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    logger: options.log === undefined ? false : loggerOf(options.log),
    logController: new LogController({ disableRequestLogging: true }),
    bodyLimit: BODY_LIMIT,
    // The address of a caller is believed from a proxy that is named, and from nobody else.
    trustProxy: options.trustedProxies.length === 0 ? false : [...options.trustedProxies],
  });
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  app.setErrorHandler(handleError);
  measureJson(app);
  app.setNotFoundHandler(() => {
    throw new RefusalError('NOT_FOUND');
  });

  const protecting = await protectingHeaders(options.secureCookie);
  app.addHook('onRequest', (_request, reply, done) => {
    for (const [name, value] of protecting) reply.raw.setHeader(name, value);
    done();
  });
  // Answers are packed as they go; pages were packed when they were built.
  await app.register(compress, { encodings: ['br', 'gzip'], threshold: 1024 });
  await app.register(cookie);
  await app.register(rateLimit, { global: false });
  await app.register(swagger, {
    openapi: { info: { title: 'Zealous Bastion', version: options.version } },
    transform: jsonSchemaTransform,
  });

  // Answers of the API belong to one person and one moment; what may be kept says so itself.
  app.addHook('onSend', (request, reply, payload, done) => {
    if (request.url.startsWith('/api/') && !reply.hasHeader('cache-control'))
      void reply.header('cache-control', 'no-store');
    done(null, payload);
  });

  const { models, sequelize } = options.database;
  const trail = audit(options.database, options.now);
  const accountService = accounts({ models, audit: trail, now: options.now, demo: options.demo });
  const peopleService = people({
    sequelize,
    models,
    accounts: accountService,
    audit: trail,
    now: options.now,
    demo: options.demo,
  });
  const pool = new Pool();
  const live = liveHub(options.liveHosts, options.now);
  const jobService = jobs(options.database, options.now, trail, pool);
  app.addHook('onClose', async () => {
    live.close();
    await jobService.flush();
    await pool.close();
  });
  app.addHook('onReady', async () => {
    void jobService.catchUp().catch((error: unknown) => app.log.error(error));
    await Promise.resolve();
  });
  const registry = metricsOf(app, {
    waitingTasks: () => pool.waiting,
    openDocuments: () => jobService.documents.count,
  });
  logRequests(app, (request) => askingId(request));
  const inFolder = photosInFolder(options.filesFolder);
  const photos = options.photosIn === 'database' ? photosInDatabase(sequelize, inFolder) : inFolder;
  const runService = runs(options.database, jobService, options.now, trail, pool);

  await app.register(healthRoute, {
    database: options.database,
    filesFolder: options.filesFolder,
    version: options.version,
    prefix: '/api',
  });
  await app.register(metricsRoute, { registry, token: options.metricsToken, prefix: '/api' });
  await app.register(signInRoutes, {
    accounts: accountService,
    people: peopleService,
    demo: options.demo,
    secureCookie: options.secureCookie,
    prefix: '/api',
  });
  await app.register(
    async (guarded) => {
      sessionGuard(guarded, accountService);
      await guarded.register(peopleRoutes, { people: peopleService, accounts: accountService });
      await guarded.register(docsRoute);
      await guarded.register(jobRoutes, { jobs: jobService, audit: trail, pool });
      await guarded.register(revisionRoutes, {
        revisions: revisions({ models, jobs: jobService, documents: jobService.documents, audit: trail }),
      });
      await guarded.register(variantRoutes, { variants: variants(options.database, jobService, trail) });
      await guarded.register(typeRoutes, { types: types(options.database, jobService, options.now, trail) });
      await guarded.register(libraryRoutes, { library: library(options.database, options.now, trail) });
      await guarded.register(attachmentRoutes, {
        attachments: attachments({
          models,
          jobs: jobService,
          pool,
          photos,
          now: options.now,
        }),
      });
      await guarded.register(captureRoutes, {
        captures: captures({ models, jobs: jobService, files: photos, now: options.now }),
      });
      await guarded.register(eventRoutes, { jobs: jobService, accounts: accountService });
      await guarded.register(runRoutes, { runs: runService });
      await guarded.register(siteRoutes, { site: site({ access: options.site, jobs: jobService }) });
      await guarded.register(liveRoutes, { live, jobs: jobService, accounts: accountService });
      await guarded.register(reportRoutes, {
        jobs: jobService,
        runs: runService,
        audit: trail,
        pool,
        now: options.now,
      });
    },
    { prefix: '/api' },
  );
  if (options.pagesFolder !== undefined) await app.register(pageRoutes, { folder: options.pagesFolder });
  return app;
}
