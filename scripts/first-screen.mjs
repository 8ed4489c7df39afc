// How much JavaScript the first screen needs, gzipped: the entry, what it always imports, and the page of jobs.
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

const LIMIT_KB = 220;
const dist = new URL('../web/dist/', import.meta.url);
const manifest = JSON.parse(readFileSync(new URL('.vite/manifest.json', dist), 'utf8'));
const seen = new Set();
const visit = (key) => {
  if (seen.has(key) || manifest[key] === undefined) return;
  seen.add(key);
  (manifest[key].imports ?? []).forEach(visit);
};
visit('index.html');
visit('src/app.tsx');
visit('src/pages/JobList.tsx');
const bytes = [...seen]
  .map((key) => manifest[key].file)
  .filter((file) => file.endsWith('.js'))
  .reduce((sum, file) => sum + gzipSync(readFileSync(new URL(file, dist))).length, 0);
console.log(
  `First screen: ${(bytes / 1000).toFixed(1)} kB of JavaScript, gzipped; ${LIMIT_KB} kB are allowed.`,
);
if (bytes > LIMIT_KB * 1000 || seen.size < 3) process.exit(1);
