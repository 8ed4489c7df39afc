import { MONTH_NAMES } from '../words/months.ts';
import { SEASONS } from './year.ts';

/** The month in which a stretch of five days lies, counted from the first of January. */
export const seasonWords = (season: number): string =>
  MONTH_NAMES[
    Math.min(MONTH_NAMES.length - 1, Math.floor(((season + 0.5) / SEASONS) * MONTH_NAMES.length))
  ] ?? '';
