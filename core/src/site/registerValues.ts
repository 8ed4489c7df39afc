import { type MapRow, type RegisterType, registersOf } from './registerTable.ts';

/** Stands for "not available", as devices do it: all ones, or the lowest negative figure. */
const NONE: Readonly<Record<RegisterType, number>> = {
  u16: 0xffff,
  s16: 0x8000,
  u32: 0xffffffff,
  s32: 0x80000000,
};
const LOWEST: Readonly<Record<RegisterType, number>> = { u16: 0, s16: -0x7fff, u32: 0, s32: -0x7fffffff };
const HIGHEST: Readonly<Record<RegisterType, number>> = {
  u16: 0xfffe,
  s16: 0x7fff,
  u32: 0xfffffffe,
  s32: 0x7fffffff,
};

const WORD = 0x10000;

/** The registers of a figure, the high word first; one past what its type holds is "not available", never cut. */
export function encodeValue({ type, scale }: Pick<MapRow, 'type' | 'scale'>, value: number | null): number[] {
  const raw = value === null ? Number.NaN : Math.round(value / scale);
  const isHeld = raw >= LOWEST[type] && raw <= HIGHEST[type];
  const wide = type === 'u16' || type === 's16' ? WORD : WORD * WORD;
  const bits = !isHeld ? NONE[type] : raw < 0 ? raw + wide : raw;
  return registersOf(type) === 1 ? [bits] : [Math.floor(bits / WORD), bits % WORD];
}

/** The figure in registers; null where the device says that it has none. Undefined where the registers are not there. */
export function decodeValue(
  { type, scale }: Pick<MapRow, 'type' | 'scale'>,
  registers: readonly number[],
): number | null | undefined {
  const [high, low] = registers;
  if (high === undefined) return undefined;
  if (registersOf(type) === 2 && low === undefined) return undefined;
  const bits = registersOf(type) === 1 ? high : high * WORD + (low ?? 0);
  if (bits === NONE[type]) return null;
  const wide = type === 's16' ? WORD : WORD * WORD;
  const isNegative = (type === 's16' || type === 's32') && bits >= wide / 2;
  const raw = isNegative ? bits - wide : bits;
  // A scale of 0.01 is a division by 100: the figure is the nearest one, not one beside it.
  const parts = 1 / scale;
  return Math.abs(parts - Math.round(parts)) < 1e-9 ? raw / Math.round(parts) : raw * scale;
}

/** One request: registers that lie together. */
export interface ReadSpan {
  readonly address: number;
  readonly length: number;
  readonly rows: readonly MapRow[];
}

/** What one request may ask for, registers. */
const MOST_REGISTERS = 120;

/**
 * Rows as the fewest requests that read them, in order of address.
 *
 * @param mostGap so many registers between two rows are read along rather than asked for apart: 0 where nobody knows whether they exist
 */
export function spansOf(rows: readonly MapRow[], mostGap: number): ReadSpan[] {
  const spans: { address: number; length: number; rows: MapRow[] }[] = [];
  for (const row of [...rows].sort((a, b) => a.address - b.address)) {
    const end = row.address + registersOf(row.type);
    const last = spans.at(-1);
    if (
      last !== undefined &&
      row.address - (last.address + last.length) <= mostGap &&
      end - last.address <= MOST_REGISTERS
    ) {
      last.length = Math.max(last.length, end - last.address);
      last.rows.push(row);
    } else spans.push({ address: row.address, length: end - row.address, rows: [row] });
  }
  return spans;
}

/** The figures of a span from what was answered. */
export function valuesOfSpan(
  { address, rows }: ReadSpan,
  registers: readonly number[],
): [string, number | null][] {
  return rows.flatMap((row): [string, number | null][] => {
    const from = row.address - address;
    const value = decodeValue(row, registers.slice(from, from + registersOf(row.type)));
    return value === undefined ? [] : [[row.key, value]];
  });
}
