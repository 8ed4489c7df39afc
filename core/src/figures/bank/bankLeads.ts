import { barOhm, leadOhm } from '../../codes/leads.ts';
import type { DefaultKey, ResolvedDefault } from '../../codes/defaults.ts';
import type { CombinerBarType } from '../../catalogue/partTypes.ts';
import { all, field, type Known, known, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { Bank, Conductor, Module, Mounted, Stack, Unit } from '../../installation/facts.ts';
import type { RouteLength } from '../../installation/place/routes.ts';

/** What the resistance of leads and bars follows from. */
export interface LeadInputs {
  readonly stack: Stack;
  readonly bank: Bank;
  readonly defaults: Record<DefaultKey, ResolvedDefault>;
  readonly bar: Known<CombinerBarType | 'none'>;
  /** What hangs on the wall and the routes along it, for banks whose lengths follow from the plan. */
  readonly mounted: readonly Mounted[];
  readonly routes: readonly RouteLength[];
}

const MILLI = 1e-3;

/** Lugs at both ends of one pole of a lead. */
const LUGS = 2;

/** A lead with the places its two figures were typed in. */
interface PlacedLead {
  readonly lengthM: Known<number>;
  readonly areaMm2: Known<number>;
  readonly areaPath: Path;
}

export const placed = (lead: Conductor, path: readonly string[]): PlacedLead => ({
  lengthM: field(lead.lengthM, ...path, 'lengthM'),
  areaMm2: field(lead.areaMm2, ...path, 'areaMm2'),
  areaPath: [...path, 'areaMm2'],
});

/** One pole of a lead: its resistance with both lugs, and how long it is. */
export interface Pole {
  readonly ohm: number;
  readonly lengthM: number;
  readonly areaMm2: number;
  /** Where its size is typed. */
  readonly areaPath: Path;
}

/** Temperature the leads are taken at: as stated for this bank, else as planned. */
const leadC = ({ bank, defaults }: LeadInputs): number => bank.leadC ?? defaults.leadC.value;

/** The bars may have one of their own. */
const barC = (inputs: LeadInputs): number => inputs.bank.barC ?? leadC(inputs);

export function poleOf(inputs: LeadInputs, { lengthM, areaMm2, areaPath }: PlacedLead): Known<Pole> {
  const given = all({ lengthM, areaMm2 });
  if (!given.known) return given;
  const ohm = leadOhm(given.value.lengthM, given.value.areaMm2, leadC(inputs));
  return known({
    ohm: ohm + LUGS * inputs.defaults.jointMilliohm.value * MILLI,
    lengthM: given.value.lengthM,
    areaMm2: given.value.areaMm2,
    areaPath,
  });
}

/** An own lead differs from the shared one in what it states, and is like it in the rest. */
export function leadOf(
  inputs: LeadInputs,
  own: Conductor | undefined,
  ownPath: readonly string[],
  shared: Conductor | undefined,
  sharedPath: readonly string[],
  wallM?: Known<number>,
): Known<Pole> {
  if (wallM !== undefined) {
    const like = placed({ ...shared, ...own }, own?.areaMm2 === undefined ? sharedPath : ownPath);
    return poleOf(inputs, { ...like, lengthM: wallM });
  }
  if (own === undefined)
    return shared === undefined ? unknownAt(sharedPath) : poleOf(inputs, placed(shared, sharedPath));
  const differs = placed(own, ownPath);
  const like = placed(shared ?? {}, shared === undefined ? ownPath : sharedPath);
  const ownArea = own.areaMm2 !== undefined;
  return poleOf(inputs, {
    lengthM: own.lengthM === undefined ? like.lengthM : differs.lengthM,
    areaMm2: ownArea ? differs.areaMm2 : like.areaMm2,
    areaPath: ownArea ? differs.areaPath : like.areaPath,
  });
}

const isPart = (one: Mounted | undefined, part: Mounted['part'], stackId: string, partId: string): boolean =>
  one?.part === part && one.stackId === stackId && one.partId === partId;

/**
 * Length of a lead as its route on the wall is cut: between a module or unit and what `leadsTo` accepts. Undefined where the
 * lengths of this bank are typed; not known where the plan has no such route.
 */
function wallLength(
  { stack, bank, mounted, routes }: LeadInputs,
  part: 'module' | 'unit',
  partId: string,
  leadsTo: (other: Mounted) => boolean,
): Known<number> | undefined {
  if (bank.lengthsFrom !== 'wall') return undefined;
  const at = (id: string): Mounted | undefined => mounted.find((one) => one.id === id);
  for (const { route, cutM } of routes) {
    const ends = [at(route.fromId), at(route.toId)];
    for (const [own, other] of [ends, [...ends].reverse()])
      if (isPart(own, part, stack.id, partId) && other !== undefined && leadsTo(other)) return cutM;
  }
  return unknownAt(['stacks', stack.id, 'bank', 'lengthsFrom']);
}

/** Length of the link from a module to the next of its chain. */
export const linkLength = (inputs: LeadInputs, module: Module, next: Module): Known<number> | undefined =>
  wallLength(inputs, 'module', module.id, (other) => isPart(other, 'module', inputs.stack.id, next.id));

/** Length from a module to its bar, which hangs on the wall as a box. */
export const toBarLength = (inputs: LeadInputs, module: Module): Known<number> | undefined =>
  wallLength(inputs, 'module', module.id, (other) => other.part === 'box');

/** Length from an inverter to the bank: to a bar or to a module. */
export const toBankLength = (inputs: LeadInputs, unit: Unit): Known<number> | undefined =>
  wallLength(inputs, 'unit', unit.id, (other) => other.part !== 'unit');

/** One bar segment: of the combiner bar that is named, else of the cross-section and spacing typed. */
export function segmentOhm(inputs: LeadInputs): Known<number> {
  const { stack, bank, bar } = inputs;
  const path = ['stacks', stack.id, 'bank'];
  if (!bar.known) return bar;
  if (bar.value !== 'none') return known(barOhm(bar.value.spacingM, bar.value.areaMm2, barC(inputs)));
  if (bank.barSegment === undefined) return unknownAt([...path, 'barSegment']);
  const { lengthM, areaMm2 } = placed(bank.barSegment, [...path, 'barSegment']);
  const given = all({ lengthM, areaMm2 });
  return given.known ? known(barOhm(given.value.lengthM, given.value.areaMm2, barC(inputs))) : given;
}
