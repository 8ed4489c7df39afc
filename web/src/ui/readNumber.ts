/** The sign that parts fractions where the person sits, as the browser tells it. */
const HERE = new Intl.NumberFormat().format(1.5).includes(',') ? ',' : '.';

/** Groups of three behind commas: "6,000" and "1,234,567.5". */
const GROUPED = /^[+-]?[1-9]\d{0,2}(,\d{3})+(\.\d+)?$/;

/**
 * Reads a number as people type it: comma or point, spaces between thousands. Where fractions are parted by a point, commas before groups
 * of three part thousands: "6,000" is six thousand. Undefined for text that is none.
 */
export function readNumber(text: string, decimal: '.' | ',' = HERE): number | undefined {
  const bare = text.replace(/\s/g, '');
  const plain = decimal === '.' && GROUPED.test(bare) ? bare.replaceAll(',', '') : bare.replace(',', '.');
  if (!/^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain)) return undefined;
  return Number(plain);
}
