// Writes docs/design.schema.json from the Zod schema of the design document. `--check` only compares.
import { readFileSync, writeFileSync } from 'node:fs';
import { designSchema } from '../core/dist/index.js';
import { z } from 'zod';

const target = new URL('../docs/design.schema.json', import.meta.url);
const schema = z.toJSONSchema(designSchema, { io: 'input' });
const fresh = `${JSON.stringify({ title: 'Zealous Bastion design document, format 1', ...schema }, null, 1)}\n`;

if (process.argv.includes('--check')) {
  if (readFileSync(target, 'utf8') !== fresh) {
    console.error('docs/design.schema.json is stale: run `npm run generate`.');
    process.exit(1);
  }
} else writeFileSync(target, fresh);
