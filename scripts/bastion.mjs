// `npm run --silent bastion -- check FILE.json`: the core on the command line, and what concerns the server of this machine. Paths count from where it was called.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { root } from './lib/run.mjs';

const failed = (message) => {
  console.error(message);
  process.exit(2);
};

try {
  checkNode();
  ensurePackages();
  ensureBuilt();
} catch (error) {
  failed(error.message);
}
if (process.env.INIT_CWD !== undefined && existsSync(process.env.INIT_CWD))
  process.chdir(process.env.INIT_CWD);

/** Commands about people and their trail look into the database of this machine, which is started for them where it does not run. */
async function administer(args) {
  const { startDatabase, runningDatabase } = await import('./lib/database.mjs');
  const folder = resolve(root, process.env.BASTION_DATA ?? '.data');
  const running = process.env.DATABASE_URL === undefined ? runningDatabase(folder) : undefined;
  if (args[0] === 'restore' && running !== undefined)
    throw new Error(
      'Stop the server first: it holds documents in memory that a restore would put away under it.',
    );
  const known = process.env.DATABASE_URL ?? running;
  const database = known === undefined ? await startDatabase(folder) : { url: known, stop: async () => {} };
  try {
    const program = join(root, 'server', 'dist', 'adminMain.js');
    const files = process.env.BASTION_FILES ?? join(folder, 'files');
    const env = { ...process.env, DATABASE_URL: database.url, BASTION_FILES: files };
    return spawnSync(process.execPath, [program, ...args], { env, stdio: 'inherit' }).status ?? 2;
  } finally {
    await database.stop();
  }
}

const args = process.argv.slice(2);
if (['user', 'audit', 'backup', 'restore'].includes(args[0])) {
  try {
    process.exitCode = await administer(args);
  } catch (error) {
    failed(error.message);
  }
} else await import(join(root, 'cli', 'dist', 'main.js'));
