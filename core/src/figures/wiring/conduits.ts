import type { CodeProfileName } from '../../codes/profile.ts';
import type { Installation } from '../../installation/installation.ts';
import { remember } from '../../values/remember.ts';
import type { CableLine } from './cableLine.ts';
import { linesById } from './cableLines.ts';
import { isLine } from './carried.ts';

/** What lies with a cable in the fullest conduit that it goes through. */
export interface InConduit {
  readonly passageId: string;
  readonly name: string;
  /** As grouping factors count: circuits in metric practice, conductors that carry in North American; the cable itself is among them. */
  readonly carrying: number;
}

/** Conductors of a cable that carry, its neutral as the code has it: of one line it carries as much, of two lines only under three. */
function carryingNa({ names, cable }: CableLine, lineCount: number): number {
  const lines = names.filter((name) => isLine(name) || name.startsWith('DC')).length;
  const hasNeutral = names.includes('N') && (lines === 1 || (lines === 2 && lineCount === 3));
  return (lines + (hasNeutral ? 1 : 0)) * (cable?.parallel ?? 1);
}

/** A neutral that is said to carry beside what `carryingNa` counts. The factor of its own cable counts that by itself. */
const saidNeutral = ({ cable }: CableLine): number => (cable?.neutralCounts === 'yes' ? 1 : 0);

const none: ReadonlyMap<string, InConduit> = new Map();

/** The cables that lie with others in a conduit, by id. What lies in glands alone is not bunched by them. */
export const inConduits = remember((installation: Installation): ReadonlyMap<string, InConduit> => {
  const conduits = (installation.wiring?.passages ?? []).filter(({ kind }) => kind === 'conduit');
  const profile: CodeProfileName | undefined = installation.site.codeProfile;
  const byId = conduits.length === 0 ? undefined : linesById(installation);
  if (profile === undefined || byId?.known !== true) return none;
  const lineCount = installation.supply.known ? installation.supply.value.lines.length : 1;
  const found = new Map<string, InConduit>();
  for (const { id, name, lineIds } of conduits) {
    const inside = [...new Set(lineIds)].flatMap((lineId) => byId.value.get(lineId) ?? []);
    const own = inside.map((line) =>
      line.use === 'earth'
        ? 0
        : profile === 'metric'
          ? (line.cable?.parallel ?? 1)
          : carryingNa(line, lineCount),
    );
    const all = own.reduce((sum, one) => sum + one, 0);
    const neutrals = profile === 'metric' ? 0 : inside.reduce((sum, line) => sum + saidNeutral(line), 0);
    for (const line of inside) {
      const carrying = all + neutrals - (profile === 'metric' ? 0 : saidNeutral(line));
      if (carrying > (found.get(line.id)?.carrying ?? 0))
        found.set(line.id, { passageId: id, name, carrying });
    }
  }
  return found;
});
