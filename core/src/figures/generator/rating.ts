import type { CompiledGenerator } from '../../installation/installation.ts';
import { generatorFactor } from '../../network/derating.ts';
import { all, field, type Known, mapKnown } from '../../values/known.ts';
import { remember } from '../../values/remember.ts';

/** Rating of a generator left at the altitude and heat of the site, VA. */
export const deratedVaOf = remember(({ site, type }: CompiledGenerator): Known<number> =>
  mapKnown(
    all({
      type,
      altitudeM: field(site.altitudeM, 'site', 'altitudeM'),
      highestC: field(site.highestC, 'site', 'highestC'),
    }),
    (given) =>
      given.type.ratedVa *
      generatorFactor(
        given.type.altitudeLossPer100M,
        given.type.temperatureLossPer5K,
        given.altitudeM,
        given.highestC,
      ),
  ),
);
