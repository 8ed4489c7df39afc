// `npm run --silent bastion -- check FILE.json`: the core on the command line. Paths count from where it was called.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
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
await import(join(root, 'cli', 'dist', 'main.js'));
