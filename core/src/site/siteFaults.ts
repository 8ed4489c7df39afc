import { z } from 'zod';
import { isBusPair } from '../figures/comms/linkFigures.ts';
import type { SitePlan, SiteSet } from './siteTypes.ts';

/** Kinds of trouble that can be planted in a simulated site, in our own words, with how hard each is to find: 1 to 3. */
export const FAULT_KINDS = {
  'unit-dropped': { words: 'A unit is dead', difficulty: 1 },
  'comms-lead-pulled': { words: 'A comms lead is pulled', difficulty: 1 },
  'setting-forgotten': { words: 'A setting was forgotten', difficulty: 2 },
  'address-doubled': { words: 'Two units have one address', difficulty: 2 },
  'firmware-missed': { words: 'One unit has older firmware', difficulty: 2 },
  'sensor-turned': { words: 'A sensor points the wrong way', difficulty: 2 },
  'polarity-swapped': { words: 'Plus and minus are swapped', difficulty: 2 },
  'module-aged': { words: 'A module has aged', difficulty: 3 },
  'lead-lengthened': { words: 'A battery lead is longer than the others', difficulty: 3 },
  'terminal-weak': { words: 'A terminal was not torqued', difficulty: 3 },
} as const;
export type FaultKind = keyof typeof FAULT_KINDS;
export const FAULT_KIND_LIST = Object.keys(FAULT_KINDS) as readonly FaultKind[];

/** Settings that may have been forgotten: each set has them. */
export const FORGETTABLE = {
  backup: 'backup output on',
  charge: 'charge current',
  count: 'number of units',
  clock: 'date and time',
} as const;
export type Forgettable = keyof typeof FORGETTABLE;

/** Settings that can be made: those that may be forgotten, and those that a set has from its sheet in any case. */
export const SITE_SETTINGS = [
  'backup',
  'charge',
  'count',
  'clock',
  'grid-charge',
  'generator-charge',
  'cutoff',
] as const;
export type SiteSetting = (typeof SITE_SETTINGS)[number];

/** A fault by its kind and by what it is in: the id of a unit, module, comms link, array, instrument, or set and setting. */
export const siteFault = z.strictObject({
  kind: z.enum(FAULT_KIND_LIST as [FaultKind, ...FaultKind[]]),
  at: z.string().min(1).max(120),
});
export type SiteFault = z.infer<typeof siteFault>;

export const faultId = ({ kind, at }: SiteFault): string => `${kind} ${at}`;

/** A fault that this installation can have, with its place in words. */
export interface PossibleFault extends SiteFault {
  readonly place: string;
}

/** An aged module has so many times its inner resistance; a long lead is so much longer; a weak joint has so much resistance. */
export const AGED_FACTOR = 2.5;
export const LONGER_M = 3;
export const WEAK_OHM = 0.004;

/** How the place of a fault is named where it lies in a unit, module or setting of a set. */
export const placeKey = (stackId: string, id: string): string => `${stackId}/${id}`;

function onBars({ compiled }: SiteSet): boolean {
  const { bank } = compiled.stack;
  return typeof bank === 'object' && (bank.joining === 'bars-equal' || bank.joining === 'bars-given');
}

function faultsOfSet(set: SiteSet): PossibleFault[] {
  const { stackId, name, units, modules } = set;
  const at = (id: string): string => placeKey(stackId, id);
  const several = units.length > 1;
  const settings = (Object.keys(FORGETTABLE) as Forgettable[]).filter(
    (setting) => (setting !== 'count' || several) && (setting !== 'charge' || set.bank !== 'none'),
  );
  return [
    ...units.map(({ unit, label }): PossibleFault => ({
      kind: 'unit-dropped',
      at: at(unit.id),
      place: label,
    })),
    ...settings.map((setting): PossibleFault => ({
      kind: 'setting-forgotten',
      at: at(setting),
      place: `${FORGETTABLE[setting]}, ${name}`,
    })),
    ...(several
      ? units.slice(1).flatMap(({ unit, label }): PossibleFault[] => [
          {
            kind: 'address-doubled',
            at: at(unit.id),
            place: `${label} has the address of ${units[0]?.label ?? ''}`,
          },
          { kind: 'firmware-missed', at: at(unit.id), place: label },
        ])
      : []),
    ...(set.circuit === undefined
      ? []
      : modules.flatMap(({ module, label }): PossibleFault[] => [
          { kind: 'module-aged', at: at(module.id), place: label },
          { kind: 'terminal-weak', at: at(module.id), place: `terminal of ${label}` },
        ])),
    // In a chain a lead carries the current of others too: there a longer one is a matter of the design.
    ...(set.circuit !== undefined && onBars(set)
      ? modules.map(({ module, label }): PossibleFault => ({
          kind: 'lead-lengthened',
          at: at(module.id),
          place: `lead of ${label}`,
        }))
      : []),
    ...modules.map(({ module, label }): PossibleFault => ({
      kind: 'polarity-swapped',
      at: at(module.id),
      place: label,
    })),
  ];
}

/** Every fault that can be planted in this installation. */
export function possibleFaults(plan: SitePlan): readonly PossibleFault[] {
  const named = new Map(plan.network.parts.map(({ id, label }) => [id, label]));
  const strings = plan.installation.arrays.filter(({ array }) => array.coupling === 'dc');
  return [
    ...plan.sets.flatMap(faultsOfSet),
    ...plan.network.links.filter(isBusPair).map(({ id, a, b }): PossibleFault => ({
      kind: 'comms-lead-pulled',
      at: id,
      place: `${named.get(a.partId) ?? a.partId} to ${named.get(b.partId) ?? b.partId}`,
    })),
    ...strings.map(({ array }): PossibleFault => ({
      kind: 'polarity-swapped',
      at: array.id,
      place: `strings of ${array.name}`,
    })),
    ...plan.instruments.map(({ id, label }): PossibleFault => ({
      kind: 'sensor-turned',
      at: id,
      place: label,
    })),
  ];
}
