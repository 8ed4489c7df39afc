import type { CodeProfileName } from './profile.ts';
import { ampacityNa, resistanceMetric } from './tables.generated.ts';

const METRIC = /^(\d+(?:[.,]\d+)?)\s*(?:mm²|mm2|sq\.?\s*mm)?$/i;
/** "4/0", "4/0 AWG", "AWG 6", "#6", "6 AWG": a plain number alone is a metric area. */
const AWG = /^(?:#|awg\s*|no\.?\s*)?(\d+(?:\/0)?)\s*(?:awg|ga(?:uge)?\.?)?$/i;
const KCMIL = /^(\d+)\s*(?:kcmil|mcm)$/i;

/**
 * Cross-section of a conductor as somebody writes it, mm²: a metric area, or a size that the North American table knows. Undefined
 * for anything else.
 */
export function readLeadSize(text: string): number | undefined {
  const written = text.trim();
  const metric = METRIC.exec(written);
  if (metric !== null) {
    const area = Number((metric[1] ?? '').replace(',', '.'));
    return area > 0 ? area : undefined;
  }
  const named = KCMIL.exec(written)?.[1];
  const gauge = AWG.exec(written)?.[1];
  const size = named !== undefined ? `${named} kcmil` : gauge !== undefined ? `${gauge} AWG` : undefined;
  return ampacityNa.find((row) => row.size === size)?.areaMm2;
}

/** A cross-section in words: by its name where it is a North American size, else in mm². */
export function leadSizeWords(areaMm2: number): string {
  const named = ampacityNa.find((row) => row.areaMm2 === areaMm2);
  return named === undefined ? `${areaMm2} mm²` : named.size;
}

/** Names of one size in mm² and in AWG differ by less. */
const SAME_SIZE = 1.02;

/** The profile in whose sizes a cross-section is named. */
export const namedIn = (areaMm2: number): CodeProfileName =>
  ampacityNa.some((row) => row.areaMm2 === areaMm2) ? 'north-american' : 'metric';

/** The thickest that goes into a terminal, in words of the profile: its size by name where the thickness is given in mm² alone. */
export function thickestWords(profile: CodeProfileName, maxMm2: number): string {
  const named = ampacityNa.findLast(({ areaMm2 }) => areaMm2 <= maxMm2 * SAME_SIZE);
  return profile === 'metric' || named === undefined ? `${maxMm2} mm²` : `${named.size} (${maxMm2} mm²)`;
}

/** The thinnest, likewise. */
export function thinnestWords(profile: CodeProfileName, minMm2: number): string {
  const named = ampacityNa.find(({ areaMm2 }) => areaMm2 * SAME_SIZE >= minMm2);
  return profile === 'metric' || named === undefined ? `${minMm2} mm²` : `${named.size} (${minMm2} mm²)`;
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
