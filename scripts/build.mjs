import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensurePackages } from './lib/packages.mjs';
import { runMain } from './lib/sentence.mjs';

await runMain(() => {
  checkNode();
  ensurePackages();
  ensureBuilt();
});
