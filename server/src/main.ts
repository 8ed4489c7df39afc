import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildApp } from './app.ts';
import { filesFolderOf, logsFolderOf, readConfig } from './config.ts';
import { openDatabase } from './database.ts';
import { fileLog } from './log.ts';
import { accounts } from './services/accounts.ts';
import { audit } from './services/audit.ts';
import { loadSampleWorld } from './services/demo.ts';
import { jobs } from './services/jobs.ts';
import { people } from './services/people.ts';
import { Pool } from './work/pool.ts';
import { VERSION } from './version.ts';

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const now = (): Date => new Date();
  const database = await openDatabase(config.databaseUrl);
  const trail = audit(database, now);
  if (config.demo) {
    const pool = new Pool();
    await loadSampleWorld(database.models, jobs(database, now, trail, pool), join(root, 'examples'));
    await pool.close();
  }
  const pages = join(root, 'web', 'dist');
  const app = await buildApp({
    database,
    demo: config.demo,
    secureCookie: config.secureCookie,
    trustedProxies: config.trustedProxies,
    version: VERSION,
    pagesFolder: existsSync(pages) ? pages : undefined,
    filesFolder: filesFolderOf(config),
    photosIn: config.photosIn,
    metricsToken: config.metricsToken,
    site: config.site,
    liveHosts: config.liveHosts,
    now,
    log: fileLog(logsFolderOf(config), (sentence) => process.stderr.write(`${sentence}\n`)),
  });
  const stop = (): void => {
    void app.close().then(() => database.sequelize.close());
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  await app.listen({ port: config.port, host: config.host });
  const { models, sequelize } = database;
  const { demo } = config;
  const accountService = accounts({ models, audit: trail, now, demo });
  const code = await people({
    sequelize,
    models,
    accounts: accountService,
    audit: trail,
    now,
    demo,
  }).firstCode();
  // The start script shows it to whoever sits at the machine; it is kept nowhere else.
  if (code !== undefined) process.stdout.write(`first-administrator ${code}\n`);
  process.stdout.write(`listening http://${config.host}:${config.port}\n`);
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
