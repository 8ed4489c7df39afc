// Writes the JSON schemas in docs/ from the Zod schemas of the core. `--check` only compares.
import { readFileSync, writeFileSync } from 'node:fs';
import { designSchema, FORMAT, typeFile } from '../core/dist/index.js';
import { z } from 'zod';

const SCHEMAS = [
  ['design.schema.json', `Zealous Bastion design document, format ${FORMAT}`, designSchema],
  ['types.schema.json', 'Zealous Bastion equipment types, format 1', typeFile],
];

for (const [name, title, schema] of SCHEMAS) {
  const target = new URL(`../docs/${name}`, import.meta.url);
  const fresh = `${JSON.stringify({ title, ...z.toJSONSchema(schema, { io: 'input' }) }, null, 1)}\n`;
  if (!process.argv.includes('--check')) writeFileSync(target, fresh);
  else if (readFileSync(target, 'utf8') !== fresh) {
    console.error(`docs/${name} is stale: run \`npm run generate\`.`);
    process.exit(1);
  }
}
