import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root, runToEnd } from './run.mjs';
import { Sentence } from './sentence.mjs';

const SOURCES = [
  'core/src',
  'server/src',
  'cli/src',
  'web/src',
  'web/index.html',
  'web/vite.config.ts',
  'tsconfig.base.json',
  'package-lock.json',
];
const stampFile = join(root, 'node_modules', '.bastion-build');

function addTo(hash, path) {
  const found = statSync(path, { throwIfNoEntry: false });
  if (found === undefined) return;
  if (found.isDirectory()) {
    for (const entry of readdirSync(path).sort()) addTo(hash, join(path, entry));
  } else {
    hash.update(`${path}\0`).update(readFileSync(path));
  }
}

function fingerprint() {
  const hash = createHash('sha256');
  for (const source of SOURCES) addTo(hash, join(root, source));
  return hash.digest('hex');
}

const bin = (name) => join(root, 'node_modules', '.bin', name);

/** Builds everything when a source has changed since the last build, or a result is missing. */
export function ensureBuilt() {
  const results = ['core/dist/index.js', 'server/dist/main.js', 'cli/dist/main.js', 'web/dist/index.html'];
  const stamp = fingerprint();
  const isFresh =
    results.every((file) => existsSync(join(root, file))) &&
    existsSync(stampFile) &&
    readFileSync(stampFile, 'utf8') === stamp;
  if (isFresh) return;
  console.error('Building…');
  if (runToEnd(bin('tsc'), ['-b', 'core', 'server', 'cli']) !== 0)
    throw new Sentence('The build failed at the types above.');
  if (runToEnd(bin('vite'), ['build', '--logLevel', 'warn'], { cwd: join(root, 'web') }) !== 0)
    throw new Sentence('The pages could not be built.');
  writeFileSync(stampFile, stamp);
}
