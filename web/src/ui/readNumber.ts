/** Reads a number as people type it: comma or point, spaces between thousands. Undefined for text that is none. */
export function readNumber(text: string): number | undefined {
  const plain = text.replace(/\s/g, '').replace(',', '.');
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain)) return undefined;
  return Number(plain);
}
