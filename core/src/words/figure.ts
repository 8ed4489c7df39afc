/** "1.234,5", "1,234.5" and "1 234.5" are numbers to the people who export them. */
export function readFigure(text: string): number | undefined {
  const plain = text.trim().replace(/[\s\u00a0']/g, '');
  if (!/^[+-]?[\d.,]+(?:[eE][+-]?\d+)?$/.test(plain)) return undefined;
  const comma = plain.lastIndexOf(',');
  const point = plain.lastIndexOf('.');
  const decimal = comma > point ? plain.replace(/\./g, '').replace(',', '.') : plain.replace(/,/g, '');
  const value = Number(decimal);
  return Number.isFinite(value) ? value : undefined;
}
