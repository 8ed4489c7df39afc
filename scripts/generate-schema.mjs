// Writes into docs/ what the core knows best: the JSON schemas of its documents and the register map of the simulated site. `--check` only compares.
import { readFileSync, writeFileSync } from 'node:fs';
import {
  designSchema,
  FORMAT,
  MAP_NUMBER,
  REGISTER_BLOCKS,
  rowsOfBlock,
  typeFile,
} from '../core/dist/index.js';
import Papa from 'papaparse';
import { z } from 'zod';

const SCHEMAS = [
  ['design.schema.json', `Zealous Bastion design document, format ${FORMAT}`, designSchema],
  ['types.schema.json', 'Zealous Bastion equipment types, format 1', typeFile],
];

/** The first thing of each kind, with how far the next one lies: the same form that a map of another device is read in. */
function registerCsv() {
  const rows = REGISTER_BLOCKS.flatMap((block) =>
    rowsOfBlock(block, 1).map((row) => ({ ...row, stride: block.stride, most: block.most })),
  );
  const columns = ['key', 'address', 'type', 'scale', 'unit', 'access', 'meaning', 'stride', 'most'];
  return `${Papa.unparse(rows, { columns, newline: '\n' })}\n`;
}

const FILES = [
  ...SCHEMAS.map(([name, title, schema]) => [
    name,
    `${JSON.stringify({ title, ...z.toJSONSchema(schema, { io: 'input' }) }, null, 1)}\n`,
  ]),
  ['registers.json', `${JSON.stringify({ map: MAP_NUMBER, blocks: REGISTER_BLOCKS }, null, 1)}\n`],
  ['registers.csv', registerCsv()],
];

for (const [name, fresh] of FILES) {
  const target = new URL(`../docs/${name}`, import.meta.url);
  if (!process.argv.includes('--check')) writeFileSync(target, fresh);
  else if (readFileSync(target, 'utf8') !== fresh) {
    console.error(`docs/${name} is stale: run \`npm run generate\`.`);
    process.exit(1);
  }
}
