/** How lengths are written: in metres, or in feet where North American practice is followed. Everything is kept in metres. */
export type LengthUnit = 'm' | 'ft';

const M_PER_FT = 0.3048;
const PRECISION = 6;

export const lengthUnitOf = ({ codeProfile }: { readonly codeProfile?: string | undefined }): LengthUnit =>
  codeProfile === 'north-american' ? 'ft' : 'm';

/** Metres as a figure in a unit, to six digits: 9.144 m are 30 ft. */
export const lengthIn = (metres: number, unit: LengthUnit): number =>
  Number((unit === 'ft' ? metres / M_PER_FT : metres).toPrecision(PRECISION));

/** A length that was typed, m: in the unit of the region unless it names one. Undefined for anything else. */
export function metresIn(text: string, unit: LengthUnit = 'm'): number | undefined {
  const found = /^([+−-]?(?:\d[\d ]*(?:[.,]\d*)?|[.,]\d+))\s*(m|ft|feet|['′])?$/iu.exec(text.trim());
  if (found === null) return undefined;
  const value = Number((found[1] ?? '').replaceAll(' ', '').replace('−', '-').replace(',', '.'));
  const named = found[2]?.toLowerCase();
  const isFeet = named === undefined ? unit === 'ft' : named !== 'm';
  return Number.isFinite(value) ? (isFeet ? Number((value * M_PER_FT).toPrecision(12)) : value) : undefined;
}
