import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildApp } from './app.ts';
import { readConfig } from './config.ts';
import { openDatabase } from './database.ts';
import { loadSampleWorld } from './services/demo.ts';
import { jobs } from './services/jobs.ts';
import { VERSION } from './version.ts';

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const now = (): Date => new Date();
  const database = await openDatabase(config.databaseUrl);
  if (config.demo) await loadSampleWorld(database.models, jobs(database, now), join(root, 'examples'));
  const pages = join(root, 'web', 'dist');
  const app = await buildApp({
    database,
    demo: config.demo,
    secureCookie: config.secureCookie,
    version: VERSION,
    pagesFolder: existsSync(pages) ? pages : undefined,
    filesFolder: config.filesFolder ?? join(root, '.data', 'files'),
    now,
    log: true,
  });
  const stop = (): void => {
    void app.close().then(() => database.sequelize.close());
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  await app.listen({ port: config.port, host: config.host });
  process.stdout.write(`listening http://${config.host}:${config.port}\n`);
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
});
