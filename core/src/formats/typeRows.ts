import { z } from 'zod';
import { equipmentType, type EquipmentKind, type EquipmentType } from '../catalogue/schema.ts';
import { entriesOf, readSheetEntries } from '../catalogue/sheet.ts';
import { SHEETS } from '../catalogue/sheets.ts';
import { type Problem, problemsFrom, type Result } from '../values/problem.ts';

const KINDS = Object.keys(SHEETS).filter((kind): kind is EquipmentKind => kind in SHEETS);
const kindSchema = z.enum(KINDS);
const FIXED = ['kind', 'id', 'version'] as const;

/** Types as rows of a sheet: one type a row, one figure a column, headed by its key; lists in one cell, rows of them parted by ";". */
export function typeRows(types: readonly EquipmentType[]): string[][] {
  const kinds = KINDS.filter((kind) => types.some((type) => type.kind === kind));
  const keys = [
    ...new Set(kinds.flatMap((kind) => SHEETS[kind].flatMap(({ fields }) => fields.map(({ key }) => key)))),
  ];
  const rows = types.map((type) => {
    const entries = entriesOf(type, SHEETS[type.kind]);
    return [
      type.kind,
      type.id,
      String(type.version),
      ...keys.map((key) => (entries[key] ?? '').replace(/\n/g, '; ')),
    ];
  });
  return [[...FIXED, ...keys], ...rows];
}

/** Reads such a sheet. A row that is no type is named with its number and the column; then none is taken. */
export function readTypeRows(rows: readonly (readonly string[])[]): Result<EquipmentType[]> {
  const [heads = [], ...body] = rows;
  const keys = heads.map((head) => head.trim());
  const missing = FIXED.filter((key) => !keys.includes(key));
  if (missing.length > 0)
    return {
      ok: false,
      problems: [{ path: [], message: `the first row has no column ${missing.join(', ')}` }],
    };
  const problems: Problem[] = [];
  const types: EquipmentType[] = [];
  body.forEach((row, index) => {
    if (row.every((cell) => cell.trim() === '')) return;
    const entries = Object.fromEntries(keys.map((key, at) => [key, (row[at] ?? '').trim()]));
    const at = `row ${index + 2}`;
    const kind = kindSchema.safeParse(entries.kind);
    if (!kind.success) {
      problems.push({
        path: [at, 'kind'],
        message: `is “${entries.kind ?? ''}”, which is no kind of equipment`,
      });
      return;
    }
    const known = new Set<string>([
      ...FIXED,
      ...SHEETS[kind.data].flatMap(({ fields }) => fields.map(({ key }) => key)),
    ]);
    const stray = keys.find((key) => !known.has(key) && (entries[key] ?? '') !== '');
    if (stray !== undefined) {
      problems.push({ path: [at, stray], message: `is not a figure of this kind` });
      return;
    }
    const read = readSheetEntries(
      kind.data,
      { id: entries.id ?? '', version: Number(entries.version) },
      SHEETS[kind.data],
      entries,
    );
    if (read.ok) types.push(read.value);
    else problems.push(...read.problems.map(({ path, message }) => ({ path: [at, ...path], message })));
  });
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: types };
}

/** The file in which types travel: its own format number, and a list. Schema in `docs/types.schema.json`. */
export const typeFile = z.strictObject({
  format: z.literal(1),
  types: z.array(equipmentType).min(1).max(500),
});

/** Reads a file of types from parsed JSON; problems say which type and which figure. */
export function readTypeFile(value: unknown): Result<EquipmentType[]> {
  const parsed = typeFile.safeParse(value, { reportInput: true });
  return parsed.success
    ? { ok: true, value: parsed.data.types }
    : { ok: false, problems: problemsFrom(parsed.error) };
}
