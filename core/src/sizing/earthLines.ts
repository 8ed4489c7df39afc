import { leadSizeWords } from '../codes/leadSizes.ts';
import type { CableLine } from '../figures/wiring/cableLine.ts';
import { spineLines } from '../figures/wiring/cableLines.ts';
import type { Installation } from '../installation/installation.ts';
import { all, field, type Known, mapKnown, unknownAt } from '../values/known.ts';
import { remember } from '../values/remember.ts';
import { earthingMm2 } from './protective.ts';

/** The conductors that an earthing conductor goes by: those of the service, and without a grid the thickest of the others. */
interface Basis {
  readonly areaMm2: number;
  readonly words: string;
}

/** Least earthing conductor of an installation, with where it comes from. */
export interface LeastEarthing {
  readonly leastMm2: number;
  readonly working: string;
}

function basisOf(lines: readonly CableLine[]): Known<Basis> {
  const service = lines.find(({ ends }) => ends.some(({ partId }) => partId === 'grid'));
  if (service !== undefined)
    return mapKnown(service.areaMm2, (areaMm2) => ({ areaMm2, words: 'the conductors of the service' }));
  const stated = lines.flatMap(({ use, areaMm2 }) => (use === 'ac' && areaMm2.known ? [areaMm2.value] : []));
  return stated.length === 0
    ? unknownAt(['wiring', 'cables'])
    : { known: true, value: { areaMm2: Math.max(...stated), words: 'the thickest conductors there are' } };
}

/** Least size of what goes to earthing bars and electrodes; not known while the conductors it goes by are not. */
export const leastEarthing = remember((installation: Installation): Known<LeastEarthing> => {
  const lines = spineLines(installation);
  if (!lines.known) return lines;
  const given = all({
    basis: basisOf(lines.value),
    profile: field(installation.site.codeProfile, 'site', 'codeProfile'),
  });
  return mapKnown(given, ({ basis, profile }) => {
    const leastMm2 = earthingMm2(profile, basis.areaMm2);
    return {
      leastMm2,
      working: `by ${basis.words} of ${leadSizeWords(basis.areaMm2)}: ${leadSizeWords(leastMm2)} at least`,
    };
  });
});
