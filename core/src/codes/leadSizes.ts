import type { CodeProfileName } from './profile.ts';
import { ampacityNa, resistanceMetric } from './tables.generated.ts';

const METRIC = /^(\d+(?:[.,]\d+)?)\s*(?:mm²|mm2|sq\.?\s*mm)?$/i;
/** "4/0", "4/0 AWG", "AWG 6", "#6", "6 AWG". */
const AWG = /^(?:#|awg\s*|no\.?\s*)?(\d+(?:\/0)?)\s*(?:awg|ga(?:uge)?\.?)?$/i;
const KCMIL = /^(\d+)\s*(?:kcmil|mcm)$/i;

const named = (size: string): number | undefined => ampacityNa.find((row) => row.size === size)?.areaMm2;

/**
 * Cross-section of a conductor as somebody writes it, mm²: a metric area, or a size that the North American table knows. A number
 * alone is what it is where the job stands: an area, or in North American practice a gauge or kcmil that the table has. Undefined for
 * anything else.
 */
export function readLeadSize(text: string, profile: CodeProfileName | undefined): number | undefined {
  const written = text.trim();
  const bare = profile === 'north-american' && /^\d+$/.test(written);
  const ofRegion = bare ? (named(`${written} AWG`) ?? named(`${written} kcmil`)) : undefined;
  if (ofRegion !== undefined) return ofRegion;
  const metric = METRIC.exec(written);
  if (metric !== null) {
    const area = Number((metric[1] ?? '').replace(',', '.'));
    return area > 0 ? area : undefined;
  }
  const kcmil = KCMIL.exec(written)?.[1];
  if (kcmil !== undefined) return named(`${kcmil} kcmil`);
  const gauge = AWG.exec(written)?.[1];
  return gauge === undefined ? undefined : named(`${gauge} AWG`);
}

/** A cross-section in words: by its name where it is a North American size, else in mm². */
export function leadSizeWords(areaMm2: number): string {
  return ampacityNa.find((row) => row.areaMm2 === areaMm2)?.size ?? `${areaMm2} mm²`;
}

/** Names of one size in mm² and in AWG differ by less. */
const SAME_SIZE = 1.02;

/** The profile in whose sizes a cross-section is named. */
export const namedIn = (areaMm2: number): CodeProfileName =>
  ampacityNa.some((row) => row.areaMm2 === areaMm2) ? 'north-american' : 'metric';

/** The thickest that goes into a terminal, in words of the profile: its size by name where the thickness is given in mm² alone. */
export function thickestWords(profile: CodeProfileName, maxMm2: number): string {
  const size = ampacityNa.findLast(({ areaMm2 }) => areaMm2 <= maxMm2 * SAME_SIZE);
  return profile === 'metric' || size === undefined ? `${maxMm2} mm²` : `${size.size} (${maxMm2} mm²)`;
}

/** The thinnest, likewise. */
export function thinnestWords(profile: CodeProfileName, minMm2: number): string {
  const size = ampacityNa.find(({ areaMm2 }) => areaMm2 * SAME_SIZE >= minMm2);
  return profile === 'metric' || size === undefined ? `${minMm2} mm²` : `${size.size} (${minMm2} mm²)`;
}

/** What a terminal takes, in words of the profile. */
export function rangeWords(profile: CodeProfileName, minMm2: number, maxMm2: number): string {
  const inside = ampacityNa.filter(
    ({ areaMm2 }) => areaMm2 * SAME_SIZE >= minMm2 && areaMm2 <= maxMm2 * SAME_SIZE,
  );
  const [from, to] = [inside[0], inside.at(-1)];
  const metric = `${minMm2} to ${maxMm2} mm²`;
  return profile === 'metric' || from === undefined || to === undefined
    ? metric
    : `${from.size} to ${to.size} (${metric})`;
}

/** Sizes to choose from, those of the job's profile first, rising. */
export function leadSizes(profile: CodeProfileName | undefined): readonly number[] {
  const metric = resistanceMetric.map((row) => row.areaMm2);
  const american = ampacityNa.map((row) => row.areaMm2);
  return profile === 'north-american' ? [...american, ...metric] : [...metric, ...american];
}

/** Whether a size is another one or thicker, whatever it is called: 53.5 mm² is as good as 54. */
export const isAtLeastMm2 = (areaMm2: number, leastMm2: number): boolean => areaMm2 * SAME_SIZE >= leastMm2;
