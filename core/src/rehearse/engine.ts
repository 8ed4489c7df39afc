import type { GeneratorType } from '../catalogue/sourceTypes.ts';
import type { GeneratorRating } from '../figures/generator/rating.ts';
import type { CompiledGenerator } from '../installation/installation.ts';

/** What a generator gives and burns while time is played. */
export interface Engine {
  /** Engine and alternator at the site, the smaller of both at a power factor of one, W. */
  readonly mostW: number;
  readonly idleLPerH: number;
  readonly lPerKwh: number;
  readonly fuelL: number;
  /** What is played otherwise because it is not known, each a sentence. */
  readonly leftOut: readonly string[];
}

/** Fuel of a set of which nothing is stated is not counted, and an engine of which nothing is stated gives what its alternator gives: both are said. */
export function engineOf(
  { generator }: CompiledGenerator,
  type: GeneratorType,
  rating: GeneratorRating,
): Engine {
  const { name, fuelL } = generator;
  return {
    mostW: Math.min(rating.wholeVa, rating.engineW.known ? rating.engineW.value : Infinity),
    idleLPerH: type.fuelIdleLPerH ?? 0,
    lPerKwh: type.fuelLPerKwh ?? 0,
    fuelL: fuelL ?? Infinity,
    leftOut: [
      ...(rating.engineW.known
        ? []
        : [`What the engine of ${name} gives is not known: it is played with what its alternator gives.`]),
      ...(type.fuelLPerKwh === undefined
        ? [`What ${name} burns is not stated by its type: fuel is not counted.`]
        : []),
      ...(fuelL === undefined ? [`The fuel at hand for ${name} is not known: it never runs dry here.`] : []),
    ],
  };
}
