import { statedOf } from '../installation/stated.ts';
import type { CompiledArray, CompiledStack, Installation } from '../installation/installation.ts';
import type { Line } from '../values/quantities.ts';
import type { Path } from '../values/problem.ts';
import { describePlace } from '../words/places.ts';
import type { ReadingSpec } from './schema.ts';

export function confirmation(id: string, label: string): ReadingSpec {
  return { id, label, unit: '', kind: 'confirmation', instrument: 'by eye', missing: [] };
}

/** The places in words, for a reading that cannot be judged until they are filled in. */
export function missingWords(installation: Installation, missing: readonly Path[]): string[] {
  return missing.slice(0, 5).map((path) => describePlace(statedOf(installation), path));
}

/** Voltage of a line with the test band, or a wider one of what feeds it, and the band at which the step is stopped. */
export function voltageSpec(installation: Installation, line: Line, sourceTolerance = 0): ReadingSpec {
  const { lineVoltageV, defaults } = installation;
  const tolerance = Math.max(defaults.voltageTolerance.value, sourceTolerance);
  const base = {
    id: `voltage-${line}`,
    label: `Voltage ${line} to neutral`,
    unit: 'V',
    kind: 'number' as const,
    instrument: 'true-RMS voltmeter',
  };
  if (!lineVoltageV.known) return { ...base, missing: missingWords(installation, lineVoltageV.missing) };
  const nominal = lineVoltageV.value;
  const around = (share: number): { low: number; high: number } => ({
    low: nominal * (1 - share),
    high: nominal * (1 + share),
  });
  return {
    ...base,
    nominal,
    expected: around(tolerance),
    abort: around(Math.max(defaults.abortVoltageTolerance.value, tolerance)),
    missing: [],
  };
}

/** Frequency with the test band; higher where what feeds the line may run higher. */
export function frequencySpec(installation: Installation, mostHz = 0): ReadingSpec {
  const nominal = installation.site.frequencyHz;
  const base = {
    id: 'frequency',
    label: 'Frequency',
    unit: 'Hz',
    kind: 'number' as const,
    instrument: 'meter with frequency',
  };
  if (nominal === undefined)
    return { ...base, missing: missingWords(installation, [['site', 'frequencyHz']]) };
  const band = installation.defaults.frequencyToleranceHz.value;
  return {
    ...base,
    nominal,
    expected: { low: nominal - band, high: Math.max(nominal + band, mostHz) },
    missing: [],
  };
}

/** The same in island: a set that holds AC-coupled power back by its frequency runs higher while the sun shines. */
export const islandFrequencySpec = (installation: Installation, compiled: CompiledStack): ReadingSpec =>
  frequencySpec(
    installation,
    acArraysOf(installation, compiled).some(({ array }) => array.curtailedBy === 'frequency')
      ? mostShiftedHz(installation)
      : 0,
  );

/** The highest frequency of a set that holds AC-coupled power back; 0 while its nominal one is not known. */
export const mostShiftedHz = ({ site, defaults }: Installation): number =>
  site.frequencyHz === undefined ? 0 : site.frequencyHz + defaults.frequencyShiftHz.value;

/** The arrays that are coupled on the AC side of the boards behind a set. */
export function acArraysOf(
  { arrays, partitions }: Installation,
  { stack }: CompiledStack,
): readonly CompiledArray[] {
  const boards = new Set(
    partitions.flatMap((one) => (one.stackId === stack.id && one.kind !== 'grid' ? [one.id] : [])),
  );
  return arrays.filter(({ array }) => array.coupling === 'ac' && boards.has(array.partitionId ?? ''));
}

/** A nominal value with an equal share either way. */
export function aroundSpec(
  base: Pick<ReadingSpec, 'id' | 'label' | 'unit' | 'instrument'>,
  nominal: number,
  tolerance: number,
): ReadingSpec {
  return {
    ...base,
    kind: 'number',
    nominal,
    expected: { low: nominal * (1 - tolerance), high: nominal * (1 + tolerance) },
    missing: [],
  };
}
