import type { CompiledGenerator } from '../../installation/installation.ts';
import { generatorFactor } from '../../network/derating.ts';
import { all, field, type Known, mapKnown } from '../../values/known.ts';
import { remember } from '../../values/remember.ts';

/** What a set can give for long at its site. */
export interface GeneratorRating {
  /** Share of the rating on the plate that is left. */
  readonly factor: number;
  /** The alternator, all its lines together, VA. */
  readonly wholeVa: number;
  /** The alternator on each of its lines, VA. */
  readonly perLineVa: number;
  /** The engine in all, W; not known while the rated power factor is not. */
  readonly engineW: Known<number>;
}

/**
 * Two ratings of one set: the alternator gives rated VA / m on each of its m lines, the engine rated VA · pf in W in all. Both lose
 * the same share at the altitude and in the heat of the site.
 */
export const generatorRating = remember(
  ({ site, type, defaults }: CompiledGenerator): Known<GeneratorRating> =>
    mapKnown(
      all({
        type,
        altitudeM: field(site.altitudeM, 'site', 'altitudeM'),
        highestC: field(site.highestC, 'site', 'highestC'),
      }),
      ({ type: set, altitudeM, highestC }) => {
        const factor = generatorFactor(
          {
            per100M: set.altitudeLossPer100M,
            aboveM: set.deratesAboveM ?? defaults.generatorAltitudeM.value,
            per5K: set.temperatureLossPer5K,
            aboveC: set.deratesAboveC ?? defaults.generatorAirC.value,
          },
          altitudeM,
          highestC,
        );
        const wholeVa = set.ratedVa * factor;
        return {
          factor,
          wholeVa,
          perLineVa: wholeVa / set.lines,
          engineW: mapKnown(
            field(set.powerFactor, 'types', set.id, 'powerFactor'),
            (powerFactor) => wholeVa * powerFactor,
          ),
        };
      },
    ),
);
