import { square } from '../../values/power.ts';
import { coreAreaMm2, fillLimit } from '../../codes/coreAreas.ts';
import type { Passage } from '../../installation/facts.ts';
import type { Installation } from '../../installation/installation.ts';
import { all, field, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import type { CableLine } from './cableLine.ts';

/** A conduit or gland with what goes through it. */
export interface PassageFigure {
  readonly passage: Passage;
  readonly lines: readonly CableLine[];
  /** Ids of cables that the installation does not have. */
  readonly stray: readonly string[];
  /** Cables in a sheath count as one, single cores one by one. */
  readonly count: Known<number>;
  /** Outside area of all of them, mm². */
  readonly areaMm2: Known<number>;
  /** The thickest and the thinnest outside diameter, mm. */
  readonly thickestMm: Known<number>;
  readonly thinnestMm: Known<number>;
  readonly fill: Known<number>;
  readonly fillLimit: Known<number>;
}

interface Bundle {
  readonly count: number;
  readonly areaMm2: number;
  readonly mm: number;
}

const circleMm2 = (mm: number): number => (Math.PI / 4) * square(mm);

/** Methods in which single cores lie; the others are cables in one sheath. */
const SINGLE: ReadonlySet<string> = new Set(['A1', 'B1']);

/** What of a cable lies in a conduit: its sheath where its diameter is stated, else its cores where it has no sheath. */
function bundleOf(installation: Installation, line: CableLine): Known<Bundle> {
  const { cable, names } = line;
  const profile = installation.site.codeProfile;
  const path = ['wiring', 'cables', cable?.id ?? line.id, 'outsideMm'];
  const parallel = cable?.parallel ?? 1;
  if (cable?.outsideMm !== undefined)
    return known({
      count: parallel,
      areaMm2: circleMm2(cable.outsideMm) * parallel,
      mm: cable.outsideMm,
    });
  if (profile === undefined) return unknownAt(['site', 'codeProfile']);
  const method = cable?.method ?? installation.wiring?.laying?.method;
  const isSingle =
    profile === 'north-american' || line.use !== 'ac' || (method !== undefined && SINGLE.has(method));
  if (!isSingle) return unknownAt(path);
  if (!line.areaMm2.known) return line.areaMm2;
  const own = coreAreaMm2(profile, line.areaMm2.value);
  const earthMm2 = cable?.protectiveMm2 ?? line.areaMm2.value;
  const earth = coreAreaMm2(profile, earthMm2);
  if (own === undefined || earth === undefined) return unknownAt(path);
  const earths = names.includes('PE') ? 1 : 0;
  const cores = (names.length - earths) * parallel;
  return known({
    count: cores + earths,
    areaMm2: cores * own + earths * earth,
    mm: Math.sqrt((4 / Math.PI) * Math.max(own, earth)),
  });
}

/** The fill of a conduit, and the diameters that a gland has to seal on. */
export function passageFigure(
  installation: Installation,
  byId: ReadonlyMap<string, CableLine>,
  passage: Passage,
): PassageFigure {
  const lines = passage.lineIds.flatMap((id) => byId.get(id) ?? []);
  const bundles = all(Object.fromEntries(lines.map((line) => [line.id, bundleOf(installation, line)])));
  const each = mapKnown(bundles, (found) => Object.values(found));
  const count = mapKnown(each, (some) => some.reduce((sum, one) => sum + one.count, 0));
  const areaMm2 = mapKnown(each, (some) => some.reduce((sum, one) => sum + one.areaMm2, 0));
  const inner = field(passage.innerMm, 'wiring', 'passages', passage.id, 'innerMm');
  const profile = field(installation.site.codeProfile, 'site', 'codeProfile');
  return {
    passage,
    lines,
    stray: passage.lineIds.filter((id) => !byId.has(id)),
    count,
    areaMm2,
    thickestMm: mapKnown(each, (some) => Math.max(0, ...some.map(({ mm }) => mm))),
    thinnestMm: mapKnown(each, (some) => Math.min(...some.map(({ mm }) => mm))),
    fill: mapKnown(all({ areaMm2, inner }), (given) => given.areaMm2 / circleMm2(given.inner)),
    fillLimit: mapKnown(all({ profile, count }), (given) => fillLimit(given.profile, given.count)),
  };
}
