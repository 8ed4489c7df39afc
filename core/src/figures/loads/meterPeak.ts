import type { MeterSummary } from '../../installation/facts.ts';

const highest = (meters: readonly MeterSummary[], scope: string): number | undefined => {
  const peaks = meters.filter((meter) => meter.scope === scope).map((meter) => meter.peakW);
  return peaks.length === 0 ? undefined : Math.max(...peaks);
};

/**
 * Peak of the whole building as its interval meter saw it, times the crest: averages over an interval understate the true
 * peak. Undefined without a meter.
 */
export function buildingPeakW(meters: readonly MeterSummary[], crest: number): number | undefined {
  const peakW = highest(meters, 'building');
  return peakW === undefined ? undefined : peakW * crest;
}

/** The same for a set of partitions: only where each of them has a meter of its own. */
export function meterPeakW(
  meters: readonly MeterSummary[],
  partitionIds: ReadonlySet<string>,
  crest: number,
): number | undefined {
  if (partitionIds.size === 0) return undefined;
  let sum = 0;
  for (const id of partitionIds) {
    const peakW = highest(meters, id);
    if (peakW === undefined) return undefined;
    sum += peakW * crest;
  }
  return sum;
}
