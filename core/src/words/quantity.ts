const KILO: ReadonlySet<string> = new Set(['VA', 'W', 'Wh']);

/** Three significant digits, without an exponent, and never "-0". */
export function formatNumber(value: number): string {
  if (!Number.isFinite(value)) return value > 0 ? 'unlimited' : 'none';
  const size = Math.abs(value);
  const digits = size >= 100 ? 0 : size >= 10 ? 1 : size >= 1 ? 2 : 3;
  const text = value.toFixed(digits);
  return Number(text) === 0 ? '0' : text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

/** A quantity for reading: VA, W and Wh from a thousand on in kilo; fractions as percent. */
export function formatQuantity(value: number, unit: string): string {
  if (unit === 'fraction') return `${formatNumber(value * 100)} %`;
  if (KILO.has(unit) && Math.abs(value) >= 1000) return `${formatNumber(value / 1000)} k${unit}`;
  return unit === '' ? formatNumber(value) : `${formatNumber(value)} ${unit}`;
}

/** "1 unit", "2 units". */
export const counted = (count: number, noun: string): string => `${count} ${noun}${count === 1 ? '' : 's'}`;
