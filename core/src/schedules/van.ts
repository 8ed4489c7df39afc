import { conductorColour } from '../codes/conductorColour.ts';
import { leadSizeWords } from '../codes/leadSizes.ts';
import type { CableLine } from '../figures/wiring/cableLine.ts';
import { conductorM } from '../figures/wiring/conductorLength.ts';
import type { Remnant } from '../installation/facts.ts';
import type { Installation } from '../installation/installation.ts';
import { chosenSize, type SizedLine } from '../sizing/sizeLine.ts';
import { known } from '../values/known.ts';
import { describePlaces } from '../words/places.ts';
import { lengthIn, lengthUnitOf } from '../words/length.ts';
import { counted } from '../words/quantity.ts';
import { conductorVerdict } from './conductorVerdict.ts';
import type { RowState } from './table.ts';

/** A piece in the van, held against one cable. */
export interface VanAnswer {
  readonly remnant: Remnant;
  readonly state: RowState;
  readonly words: string;
}

/** What a cable is cut from: one sheathed cable for a circuit, flexible leads for a battery, else each conductor by itself. */
export const makeOf = ({ circuit, use }: CableLine): Remnant['make'] =>
  circuit !== undefined ? 'cable' : use === 'battery' ? 'flexible' : 'single';

/** How many pieces of a cable could be cut from one in the van: its earth is sized by itself, and left out. */
function wantedOf(
  installation: Installation,
  { cable, names, circuit }: CableLine,
  remnant: Remnant,
): number {
  if (circuit !== undefined) return remnant.cores === names.length ? 1 : 0;
  const { codeProfile } = installation.site;
  const ofColour = names.filter(
    (name) =>
      name !== 'PE' &&
      (remnant.colour === undefined || conductorColour(codeProfile, name) === remnant.colour),
  );
  return ofColour.length * (cable?.parallel ?? 1);
}

/** A length in the unit of the region. */
const lengthWords = ({ site }: Installation, metres: number): string => {
  const unit = lengthUnitOf(site);
  return `${Number(lengthIn(metres, unit).toFixed(1))} ${unit}`;
};

/**
 * Every piece in the van of the make of a cable, thinnest first: whether its size passes every test of that cable, and whether it is
 * long enough, with what is left at the ends. Which cable gets it where several could is for the cut list.
 */
export function vanAnswers(installation: Installation, sized: SizedLine): readonly VanAnswer[] {
  const { line } = sized;
  const lengthM = conductorM(installation, line);
  const remnants = (installation.wiring?.remnants ?? [])
    .filter(({ make }) => make === makeOf(line))
    .sort((a, b) => a.areaMm2 - b.areaMm2 || a.lengthM - b.lengthM);
  return remnants.flatMap((remnant): VanAnswer[] => {
    const wanted = wantedOf(installation, line, remnant);
    if (wanted === 0) return [];
    const asIf = { ...sized, line: { ...line, areaMm2: known(remnant.areaMm2) } };
    const verdict = conductorVerdict(installation, { ...asIf, chosen: chosenSize(asIf) });
    if (verdict.state === 'over') return [{ remnant, ...verdict }];
    if (!lengthM.known)
      return [
        { remnant, state: 'unknown', words: `missing: ${describePlaces(installation, lengthM.missing)}` },
      ];
    const found = Math.floor(remnant.lengthM / lengthM.value + 1e-9) * (remnant.pieces ?? 1);
    const each = `${lengthWords(installation, remnant.lengthM)} for ${lengthWords(installation, lengthM.value)}`;
    if (found === 0) return [{ remnant, state: 'over', words: `too short: ${each}` }];
    if (verdict.state !== 'within') return [{ remnant, ...verdict }];
    return [
      found < wanted
        ? {
            remnant,
            state: 'tight',
            words: `enough for ${found} of ${counted(wanted, 'conductor')}: ${each}`,
          }
        : { remnant, state: 'within', words: `within, and long enough: ${each}` },
    ];
  });
}

/** The thinnest piece in the van that serves a cable whole, in words; empty where there is none. */
export function vanWords(installation: Installation, sized: SizedLine): string {
  if (installation.wiring?.remnants === undefined) return '';
  const found = vanAnswers(installation, sized).find(({ state }) => state === 'within');
  return found === undefined
    ? ''
    : `${leadSizeWords(found.remnant.areaMm2)}, ${lengthWords(installation, found.remnant.lengthM)}`;
}
