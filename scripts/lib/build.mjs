import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { root, runToEnd } from './run.mjs';
import { Sentence } from './sentence.mjs';

const SOURCES = [
  'core/src',
  'server/src',
  'cli/src',
  'site-sim/src',
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

/** What is worth packing: text. Fonts and pictures are packed already. */
const PACKED = /\.(js|css|html|svg|json)$/;
const LEAST_PACKED_BYTES = 1024;

/** Packs the pages beside themselves, so that the server need not do it for every visitor. */
function packPages(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) packPages(path);
    else if (PACKED.test(entry.name)) {
      const bytes = readFileSync(path);
      if (bytes.length < LEAST_PACKED_BYTES) continue;
      writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
      writeFileSync(
        `${path}.br`,
        brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }),
      );
    }
  }
}

/** Builds everything when a source has changed since the last build, or a result is missing. */
export function ensureBuilt() {
  const results = [
    'core/dist/index.js',
    'server/dist/main.js',
    'cli/dist/main.js',
    'site-sim/dist/main.js',
    'web/dist/index.html',
  ];
  const stamp = fingerprint();
  const isFresh =
    results.every((file) => existsSync(join(root, file))) &&
    existsSync(stampFile) &&
    readFileSync(stampFile, 'utf8') === stamp;
  if (isFresh) return;
  console.error('Building…');
  if (runToEnd(bin('tsc'), ['-b', 'core', 'server', 'cli', 'site-sim']) !== 0)
    throw new Sentence('The build failed at the types above.');
  // Whoever asks for the build may run as a test: the pages are those of a visitor all the same.
  const env = { ...process.env, NODE_ENV: 'production' };
  if (runToEnd(bin('vite'), ['build', '--logLevel', 'warn'], { cwd: join(root, 'web'), env }) !== 0)
    throw new Sentence('The pages could not be built.');
  packPages(join(root, 'web', 'dist'));
  writeFileSync(stampFile, stamp);
}
