import type { Cell } from './table.ts';

/** A number with what stands behind it, as "230 V" or "0,5 %". */
const FIGURE = /^([+−-]?\d+(?:[.,]\d+)?)\s*(.*)$/u;

interface Figure {
  readonly value: number;
  readonly unit: string;
}

function figureOf(text: string): Figure | undefined {
  const found = FIGURE.exec(text.trim());
  if (found === null) return undefined;
  const value = Number((found[1] ?? '').replace('−', '-').replace(',', '.'));
  return Number.isFinite(value) ? { value, unit: (found[2] ?? '').trim().toLowerCase() } : undefined;
}

/** Room for how a display rounds, as a share of the figure. */
const ROUNDING = 1e-6;

/**
 * Whether what is read on a display is what is wanted: figures by value, where a unit left out is taken for the wanted one; words
 * letter by letter, but for case and spaces.
 */
export function isAsWanted(wanted: string | number, read: string): boolean {
  const [a, b] = [figureOf(String(wanted)), figureOf(read)];
  if (a !== undefined && b !== undefined && (a.unit === b.unit || b.unit === ''))
    return Math.abs(a.value - b.value) <= ROUNDING * Math.max(1, Math.abs(a.value));
  const plain = (text: string): string => text.trim().toLowerCase().replaceAll(/\s+/gu, ' ');
  return plain(String(wanted)) === plain(read);
}

/** Whether a figure read lies inside a window; undefined where nothing was read that is a figure. */
export function isInside(
  window: { readonly min: number; readonly max: number },
  read: Cell,
): boolean | undefined {
  const found = typeof read === 'string' ? figureOf(read) : undefined;
  return found === undefined ? undefined : found.value >= window.min && found.value <= window.max;
}
