// `npm run trials`: the trials on a running server in their long form, on a database of their own. Takes an hour or more.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { root, runToEnd } from './lib/run.mjs';
import { runMain } from './lib/sentence.mjs';

const wanted = process.argv.slice(2);

await runMain(async () => {
  checkNode();
  ensurePackages();
  ensureBuilt();
  const { startDatabase } = await import('./lib/database.mjs');
  const folder = mkdtempSync(join(tmpdir(), 'bastion-trials-'));
  const database = await startDatabase(folder);
  try {
    const vitest = join(root, 'node_modules', '.bin', 'vitest');
    process.exitCode = runToEnd(vitest, ['run', ...(wanted.length === 0 ? ['trials'] : wanted)], {
      env: {
        ...process.env,
        BASTION_TEST_DATABASE: database.url,
        BASTION_TRIALS: process.env.BASTION_TRIALS ?? 'long',
      },
    });
  } finally {
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
