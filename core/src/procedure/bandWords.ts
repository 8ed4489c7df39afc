import { log10 } from '../values/elementary.ts';
import type { Band, ReadingSpec } from './schema.ts';

/** Marks that a band is divided into, so that its edges can be told apart from what lies just inside them. */
const DIVISIONS = 30;
const MOST_DECIMALS = 3;

/** Decimals that the edges of a reading need: as many as its narrowest band asks for. */
function decimalsOf({ expected, abort }: ReadingSpec): number {
  const widths = [expected, abort].flatMap((band) =>
    band?.low !== undefined && band.high !== undefined && band.high > band.low ? [band.high - band.low] : [],
  );
  const edges = [expected?.low, expected?.high].flatMap((edge) =>
    edge === undefined ? [] : [Math.abs(edge)],
  );
  const width = widths.length > 0 ? Math.min(...widths) : Math.max(...edges, 1) / 10;
  return Math.min(MOST_DECIMALS, Math.max(0, Math.ceil(-log10(width / DIVISIONS))));
}

const trimmed = (text: string): string => (text.includes('.') ? text.replace(/\.?0+$/, '') : text);

/** An edge of a band with as many digits as the tolerance needs. */
export const edgeFigure = (spec: ReadingSpec, edge: number): string =>
  trimmed(edge.toFixed(decimalsOf(spec)));

/** A band in words: "216.2 to 243.8", "at most 1". */
export function bandFigures(spec: ReadingSpec, { low, high }: Band): string {
  if (low !== undefined && high !== undefined) return `${edgeFigure(spec, low)} to ${edgeFigure(spec, high)}`;
  if (low !== undefined) return `at least ${edgeFigure(spec, low)}`;
  return high === undefined ? '' : `at most ${edgeFigure(spec, high)}`;
}

/** A reading as the instrument showed it: every digit that was typed. */
export const readingFigure = (value: number): string => String(Number(value.toPrecision(10)));
