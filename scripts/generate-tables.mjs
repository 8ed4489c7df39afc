// Writes core/src/codes/tables.generated.ts from the CSV tables beside it. `--check` only compares.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import Papa from 'papaparse';

const folder = new URL('../core/src/codes/tables/', import.meta.url);
const target = new URL('../core/src/codes/tables.generated.ts', import.meta.url);

const camel = (file) => file.replace(/\.csv$/, '').replace(/-(.)/g, (_, letter) => letter.toUpperCase());
const value = (text) => (text === '' ? null : Number.isNaN(Number(text)) ? text : Number(text));

export function generate() {
  const parts = readdirSync(folder)
    .filter((file) => file.endsWith('.csv'))
    .sort()
    .map((file) => {
      const { data, errors } = Papa.parse(readFileSync(new URL(file, folder), 'utf8').trim(), {
        header: true,
      });
      if (errors.length > 0) throw new Error(`${file}: ${errors[0].message} in row ${errors[0].row}`);
      const rows = data.map((row) =>
        JSON.stringify(Object.fromEntries(Object.entries(row).map(([k, v]) => [k, value(v)]))),
      );
      return `export const ${camel(file)} = [\n${rows.map((row) => `  ${row},\n`).join('')}] as const;\n`;
    });
  return `// Made by scripts/generate-tables.mjs from the CSV files in tables/. Do not edit.\n\n${parts.join('\n')}`;
}

if (process.argv[1] === new URL(import.meta.url).pathname) {
  const fresh = generate();
  if (process.argv.includes('--check')) {
    if (readFileSync(target, 'utf8') !== fresh) {
      console.error('core/src/codes/tables.generated.ts is stale: run `npm run generate`.');
      process.exit(1);
    }
  } else writeFileSync(target, fresh);
}
