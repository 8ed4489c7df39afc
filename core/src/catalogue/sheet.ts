import { z } from 'zod';
import { type Problem, problemsFrom, type Result } from '../values/problem.ts';
import { isAmbiguous, readFigure } from '../words/figure.ts';
import { equipmentType, type EquipmentKind, type EquipmentType } from './schema.ts';

/** A column of a field that is a list of rows. */
export interface SheetColumn {
  readonly key: string;
  readonly label: string;
  /** Figures by default. */
  readonly holds?: 'text' | 'names';
}

/** One figure of a data sheet. `key` is its place in the type, dotted. */
export interface SheetField {
  readonly key: string;
  readonly label: string;
  readonly unit?: string;
  readonly holds: 'figure' | 'figure-or-none' | 'text' | 'choice' | 'choices' | 'names' | 'rows';
  readonly options?: readonly string[];
  readonly columns?: readonly SheetColumn[];
  readonly isNeeded?: boolean;
}

/** Figures that stand together on a data sheet, and where to look for them. */
export interface SheetGroup {
  readonly title: string;
  readonly where: string;
  /** When the figures that are not needed at once are asked for. */
  readonly asked?: string;
  readonly fields: readonly SheetField[];
}

/** A type as it is typed: text by key. Rows are lines with their columns parted by ":". */
export type SheetEntries = Readonly<Record<string, string>>;

const looseObject = z.record(z.string(), z.unknown());
type Loose = Record<string, unknown>;

const asObject = (value: unknown): Loose => looseObject.safeParse(value).data ?? {};

function valueAt(type: EquipmentType, key: string): unknown {
  return key.split('.').reduce<unknown>((value, part) => asObject(value)[part], type);
}

function putAt(target: Loose, key: string, value: unknown): void {
  const parts = key.split('.');
  const last = parts.pop() ?? key;
  let at = target;
  for (const part of parts) {
    const next = asObject(at[part]);
    at[part] = next;
    at = next;
  }
  at[last] = value;
}

const plain = (value: unknown): string =>
  typeof value === 'number' || typeof value === 'string' ? String(value) : '';

const list = (value: unknown): string =>
  Array.isArray(value) ? (value as readonly unknown[]).map(plain).join(', ') : plain(value);

/** The text of a field as the form shows it; empty where the type does not state it. */
export function entryOf(type: EquipmentType, field: SheetField): string {
  const value = valueAt(type, field.key);
  if (value === undefined) return '';
  if (field.holds !== 'rows' || !Array.isArray(value)) return list(value);
  return (value as readonly unknown[])
    .map((row) => (field.columns ?? []).map((column) => list(asObject(row)[column.key])).join(' : '))
    .join('\n');
}

export function entriesOf(type: EquipmentType, groups: readonly SheetGroup[]): SheetEntries {
  return Object.fromEntries(
    groups.flatMap(({ fields }) => fields.map((field) => [field.key, entryOf(type, field)])),
  );
}

const names = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '');

type Read = { readonly value: unknown } | { readonly wrong: string };

/** A figure of a data sheet. "5,000" is asked about: a rating of five where five thousand was meant passes many a limit. */
function readOwnFigure(text: string, where = ''): Read {
  const value = readFigure(text);
  if (value === undefined) return { wrong: `“${text}” is not a figure${where}` };
  return text.includes(',') && isAmbiguous(text)
    ? { wrong: `“${text}” may be ${value} or ${value * 1000}: write it without the comma${where}` }
    : { value };
}

function readCell(text: string, column: SheetColumn): Read {
  if (column.holds === 'names') return { value: names(text) };
  if (column.holds === 'text') return { value: text };
  return readOwnFigure(text, ` (${column.label})`);
}

/** Lines of columns parted by ":" or by tabs, as they come from a spreadsheet. Empty cells are left out. */
function readRows(text: string, columns: readonly SheetColumn[]): Read {
  const rows: Loose[] = [];
  for (const [index, row] of text.split(/[\n;]/).entries()) {
    if (row.trim() === '') continue;
    const cells = row.split(row.includes('\t') ? '\t' : ':').map((cell) => cell.trim());
    if (cells.length > columns.length)
      return { wrong: `line ${index + 1} has ${cells.length} columns, and ${columns.length} are meant` };
    const read: Loose = {};
    for (const [at, column] of columns.entries()) {
      const cell = cells[at] ?? '';
      if (cell === '') continue;
      const one = readCell(cell, column);
      if ('wrong' in one) return { wrong: `line ${index + 1}: ${one.wrong}` };
      read[column.key] = one.value;
    }
    rows.push(read);
  }
  return { value: rows };
}

function readField(field: SheetField, text: string): Read {
  switch (field.holds) {
    case 'text':
      return { value: text };
    case 'choice': {
      const figure = field.options?.every((option) => /^\d+$/.test(option)) === true;
      return { value: figure ? Number(text) : text };
    }
    case 'choices':
    case 'names':
      return { value: names(text) };
    case 'rows':
      return readRows(text, field.columns ?? []);
    case 'figure-or-none':
      if (text === 'none') return { value: 'none' };
      break;
    case 'figure':
      break;
  }
  return readOwnFigure(text);
}

/**
 * Reads a type as it was typed. What was left empty is not stated. Problems carry the key of their field as their path, so that
 * the form can show each in its place; nothing is half-read.
 */
export function readSheetEntries(
  kind: EquipmentKind,
  base: { readonly id: string; readonly version: number },
  groups: readonly SheetGroup[],
  entries: SheetEntries,
): Result<EquipmentType> {
  const problems: Problem[] = [];
  const target: Loose = { kind, id: base.id, version: base.version };
  const keys = groups.flatMap(({ fields }) => fields);
  for (const field of keys) {
    const text = (entries[field.key] ?? '').trim();
    if (text === '') {
      if (field.isNeeded === true) problems.push({ path: [field.key], message: `${field.label} is needed` });
      continue;
    }
    const read = readField(field, text);
    if ('wrong' in read) problems.push({ path: [field.key], message: read.wrong });
    else putAt(target, field.key, read.value);
  }
  // A body without holes is a body; its list is then empty, not missing.
  const body = asObject(target.body);
  if (target.body !== undefined && body.drilling === undefined) putAt(target, 'body.drilling', []);
  if (problems.length > 0) return { ok: false, problems };
  const parsed = equipmentType.safeParse(target, { reportInput: true });
  if (parsed.success) return { ok: true, value: parsed.data };
  return {
    ok: false,
    problems: problemsFrom(parsed.error).map(({ path, message }) => {
      const dotted = path.filter((part) => typeof part === 'string').join('.');
      const field =
        keys.find(({ key }) => dotted === key || dotted.startsWith(`${key}.`)) ??
        keys.find(({ key }) => key.startsWith(`${dotted}.`));
      return { path: [field?.key ?? dotted], message };
    }),
  };
}

/** What differs between two versions of a type, as its data sheet would say it. */
export interface TypeChange {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  readonly before: string;
  readonly after: string;
}

export function typeChanges(
  before: EquipmentType,
  after: EquipmentType,
  groups: readonly SheetGroup[],
): TypeChange[] {
  return groups.flatMap(({ fields }) =>
    fields.flatMap((field): TypeChange[] => {
      const [was, is] = [entryOf(before, field), entryOf(after, field)];
      return was === is
        ? []
        : [{ key: field.key, label: field.label, unit: field.unit ?? '', before: was, after: is }];
    }),
  );
}
