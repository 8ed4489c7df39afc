import type { MapRow, RegisterType } from './registerTable.ts';

const TYPES: readonly RegisterType[] = ['u16', 's16', 'u32', 's32'];
const isType = (text: string): text is RegisterType => TYPES.some((type) => type === text);
const COLUMNS = ['key', 'address', 'type', 'scale', 'unit', 'access', 'meaning'] as const;
const LAST_REGISTER = 65535;
const MOST_ROWS = 5000;

/** Keys as the readings of the test ask for them: a thing, its number, a field. */
const KEY = /^(?:site|(?:line|set|unit|module|generator|instrument|circuit)\.[1-9]\d{0,3})\.[A-Za-z]{1,30}$/;

export type ReadMap =
  | { readonly ok: true; readonly rows: readonly MapRow[] }
  | { readonly ok: false; readonly problems: readonly string[] };

/**
 * A register map of a device of another make, as rows of cells with a heading row: key, address, type and scale at least. Every row that
 * cannot be used is told with its number; then nothing is taken.
 *
 * @param cells rows of cells as a table of commas gives them
 */
export function readRegisterMap(cells: readonly (readonly string[])[]): ReadMap {
  const [heading, ...body] = cells;
  const at = new Map((heading ?? []).map((name, index) => [name.trim().toLowerCase(), index]));
  const lacking = COLUMNS.slice(0, 4).filter((name) => !at.has(name));
  if (lacking.length > 0) return { ok: false, problems: [`Row 1: the heading lacks ${lacking.join(', ')}.`] };
  if (body.length > MOST_ROWS)
    return { ok: false, problems: [`The map has ${body.length} rows; at most ${MOST_ROWS} are read.`] };
  const problems: string[] = [];
  const seen = new Set<string>();
  const rows = body.flatMap((row, index): MapRow[] => {
    const cell = (name: (typeof COLUMNS)[number]): string => row[at.get(name) ?? -1]?.trim() ?? '';
    if (row.every((one) => one.trim() === '')) return [];
    const where = `Row ${index + 2}`;
    const [key, type, address, scale] = [
      cell('key'),
      cell('type'),
      Number(cell('address')),
      Number(cell('scale')),
    ];
    const wrong = [
      ...(KEY.test(key) ? [] : [`"${key}" is no key as line.1.voltageV`]),
      ...(seen.has(key) ? [`"${key}" is there twice`] : []),
      ...(cell('address') !== '' && Number.isInteger(address) && address >= 0 && address < LAST_REGISTER
        ? []
        : [`"${cell('address')}" is no address`]),
      ...(isType(type) ? [] : [`"${type}" is none of ${TYPES.join(', ')}`]),
      ...(Number.isFinite(scale) && scale !== 0 && cell('scale') !== ''
        ? []
        : [`"${cell('scale')}" is no scale`]),
    ];
    seen.add(key);
    if (wrong.length > 0 || !isType(type)) {
      problems.push(`${where}: ${wrong.join('; ')}.`);
      return [];
    }
    return [
      {
        key,
        address,
        type,
        scale,
        unit: cell('unit'),
        access: cell('access') === 'write' ? 'write' : 'read',
        meaning: cell('meaning'),
      },
    ];
  });
  if (problems.length > 0) return { ok: false, problems };
  return rows.length === 0 ? { ok: false, problems: ['The map has no rows.'] } : { ok: true, rows };
}
