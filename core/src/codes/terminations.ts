/** Pull that a conductor in a screw terminal withstands for a minute, N, by its size (IEC 60947-1, table 5). */
const PULL_N: readonly { readonly areaMm2: number; readonly newton: number }[] = [
  { areaMm2: 1.5, newton: 40 },
  { areaMm2: 2.5, newton: 50 },
  { areaMm2: 4, newton: 60 },
  { areaMm2: 6, newton: 80 },
  { areaMm2: 10, newton: 90 },
  { areaMm2: 16, newton: 100 },
  { areaMm2: 25, newton: 135 },
  { areaMm2: 35, newton: 190 },
  { areaMm2: 50, newton: 236 },
  { areaMm2: 70, newton: 285 },
  { areaMm2: 95, newton: 351 },
  { areaMm2: 120, newton: 427 },
  { areaMm2: 150, newton: 427 },
  { areaMm2: 185, newton: 503 },
  { areaMm2: 240, newton: 578 },
];

/** Pull to try a termination with, N: that of the size, of one between two rows that of the thinner; undefined below the table. */
export const pullN = (areaMm2: number): number | undefined =>
  PULL_N.findLast((row) => row.areaMm2 <= areaMm2 * 1.02)?.newton;

/** What is pressed onto the end of a conductor. */
export type EndKind = 'bare' | 'ferrule' | 'ring' | 'fork' | 'pin' | 'plug';

/** An end that clicks into its counterpart: no screw holds it, so it has no torque, and the table of pulls is not made for it. */
export const isClicked = (end: EndKind | undefined): boolean => end === 'pin' || end === 'plug';

/** Ferrules are made to here, mm²; above, the end goes in bare or with a lug. */
const THICKEST_FERRULE_MM2 = 50;
/** Lugs are pressed with a hand tool to here, mm²; above by hydraulics with a die for the size. */
const THICKEST_HAND_MM2 = 10;

/** The end to make of those a terminal takes: a plug before a lug before a ferrule before a bare end, for flexible conductors never bare if avoidable. */
export function endFor(
  allowed: readonly EndKind[],
  areaMm2: number,
  isFlexible: boolean,
): EndKind | undefined {
  const order: readonly EndKind[] = isFlexible
    ? ['plug', 'ring', 'pin', 'ferrule', 'fork', 'bare']
    : ['plug', 'ring', 'fork', 'pin', 'bare', 'ferrule'];
  return order.find((end) => allowed.includes(end) && (end !== 'ferrule' || areaMm2 <= THICKEST_FERRULE_MM2));
}

/** The tool that makes an end; null where that goes by a size that is not known. */
export function toolFor(end: EndKind, areaMm2: number | undefined): string | null {
  if (end === 'bare') return 'stripper only';
  if (isClicked(end)) return 'crimp pliers that its maker names for the contact';
  if (areaMm2 === undefined) return null;
  if (end === 'ferrule') return areaMm2 <= 16 ? 'ferrule pliers' : 'ferrule press for the size';
  return areaMm2 <= THICKEST_HAND_MM2 ? 'ratchet pliers for lugs' : 'hydraulic press, die for the size';
}
