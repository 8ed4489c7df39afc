/** The sign that parts the whole from its fraction; the other one, where it stands, parts thousands. */
export type DecimalSign = '.' | ',';

const signs = /[.,]/g;
/** Thousands in groups of three; in some countries all but the last of them are of two. */
const GROUPED = /^[+-]?\d{1,3}([.,]\d{2,3})*[.,]\d{3}$/;
/** A figure with nothing around it: no unit, no spaces, no quotes between its thousands. */
const bareOf = (text: string): string => text.trim().replace(/[\s\u00a0']/g, '');

/** "1,200": one sign, three digits after it and one to three before it. It may part thousands as well as a fraction. */
export const isAmbiguous = (text: string): boolean => /^[+-]?[1-9]\d{0,2}[.,]\d{3}$/.test(bareOf(text));

/** What one figure tells about the signs of whoever wrote it. */
function decimalOf(text: string): DecimalSign | undefined {
  const found = bareOf(text).match(signs) ?? [];
  const last = found.at(-1);
  if (last === undefined || isAmbiguous(text)) return undefined;
  const other = last === ',' ? '.' : ',';
  // The same sign twice parts thousands.
  return found.filter((sign) => sign === last).length > 1 ? other : last === '.' ? '.' : ',';
}

/** The sign that the figures of one sheet agree on; undefined where none of them tells, or they do not agree. */
export function decimalSignOf(texts: readonly string[]): DecimalSign | undefined {
  const told = new Set(texts.map((text) => decimalOf(text)).filter((sign) => sign !== undefined));
  return told.size === 1 ? [...told][0] : undefined;
}

/**
 * "1.234,5", "1,234.5" and "1 234.5" are numbers to the people who export them. A figure that tells its signs by itself is read by those;
 * one that does not by the sign that is given, else by its last one.
 */
export function readFigure(text: string, decimal?: DecimalSign): number | undefined {
  const plain = bareOf(text);
  if (!/^[+-]?[\d.,]+(?:[eE][+-]?\d+)?$/.test(plain)) return undefined;
  const parts = decimalOf(plain) ?? decimal ?? (plain.includes(',') ? ',' : '.');
  const thousands = parts === ',' ? '.' : ',';
  const [whole = ''] = plain.split(parts);
  // "1,2,3" is a list of three, not a hundred and twenty-three.
  if (whole.includes(thousands) && !GROUPED.test(whole)) return undefined;
  const value = Number(plain.replaceAll(thousands, '').replace(',', '.'));
  return Number.isFinite(value) ? value : undefined;
}
