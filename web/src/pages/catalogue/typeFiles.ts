import { type EquipmentType, formatPath, readTypeFile, readTypeRows, typeRows } from '@bastion/core';
import Papa from 'papaparse';
import { downloadBlob } from '../../state/documentFile.ts';
import { readSheet } from '../../state/readSheet.ts';

export type TypesRead =
  | { readonly ok: true; readonly types: readonly EquipmentType[] }
  | { readonly ok: false; readonly message: string };

const MOST_BYTES = 8_000_000;
const SHOWN = 4;

function refuse(
  name: string,
  problems: readonly { path: readonly (string | number)[]; message: string }[],
): TypesRead {
  const shown = problems.slice(0, SHOWN).map(({ path, message }) => `${formatPath(path)} ${message}`);
  const more = problems.length > SHOWN ? ` And ${problems.length - SHOWN} more.` : '';
  return { ok: false, message: `${name} was not taken over. ${shown.join('. ')}.${more}` };
}

/** Reads types from a JSON file or a sheet (CSV, XLSX). What is wrong is said with its place, and then none is taken. */
export async function readTypesFile(file: File): Promise<TypesRead> {
  if (file.size > MOST_BYTES)
    return { ok: false, message: `${file.name} is larger than ${MOST_BYTES / 1e6} MB, so it was not read.` };
  if (!file.name.toLowerCase().endsWith('.json')) {
    const sheet = await readSheet(file);
    if (!sheet.ok) return sheet;
    const read = readTypeRows(sheet.rows);
    return read.ok ? { ok: true, types: read.value } : refuse(file.name, read.problems);
  }
  let value: unknown;
  try {
    value = JSON.parse(await file.text());
  } catch {
    return { ok: false, message: `${file.name} is not JSON, so it was not read.` };
  }
  const read = readTypeFile(value);
  return read.ok ? { ok: true, types: read.value } : refuse(file.name, read.problems);
}

/** Hands types to the person as a file that the import reads back. */
export function downloadTypes(types: readonly EquipmentType[], kind: 'json' | 'csv', name: string): void {
  const text =
    kind === 'json'
      ? `${JSON.stringify({ format: 1, types }, null, 2)}\n`
      : `\uFEFF${Papa.unparse(typeRows(types), { escapeFormulae: true })}`;
  downloadBlob(
    new Blob([text], { type: kind === 'json' ? 'application/json' : 'text/csv' }),
    `${name}.${kind}`,
  );
}
