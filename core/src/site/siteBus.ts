import type { LinkKind } from '../installation/network.ts';
import { placeKey, type SiteFault } from './siteFaults.ts';
import type { SitePlan, SiteSet } from './siteTypes.ts';

/** What the buses of a set let through, with the leads that are pulled. */
export interface Heard {
  /** Units that the host hears, itself among them. */
  readonly units: ReadonlySet<string>;
  /** Modules that the host hears; empty where nothing is plugged. */
  readonly modules: ReadonlySet<string>;
  /** A bus of which no cable is planned cannot lose one: everybody is heard. */
  readonly isBatteryBus: boolean;
}

const kindsOf = (plan: SitePlan, kind: LinkKind, pulled: ReadonlySet<string>): [string, string][] =>
  plan.network.links.flatMap((link): [string, string][] =>
    link.kind === kind && !pulled.has(link.id) ? [[link.a.partId, link.b.partId]] : [],
  );

/** What is reached from a part over the cables that are left. */
function reached(from: string, links: readonly [string, string][]): Set<string> {
  const found = new Set([from]);
  const open = [from];
  for (let part = open.pop(); part !== undefined; part = open.pop())
    for (const [a, b] of links) {
      const other = a === part ? b : b === part ? a : undefined;
      if (other === undefined || found.has(other)) continue;
      found.add(other);
      open.push(other);
    }
  return found;
}

export const pulledLinks = (faults: readonly SiteFault[]): ReadonlySet<string> =>
  new Set(faults.flatMap(({ kind, at }) => (kind === 'comms-lead-pulled' ? [at] : [])));

const heardOnce = new WeakMap<readonly SiteFault[], WeakMap<SiteSet, Heard>>();

/** Who is heard on the buses of a set, worked out once for a list of faults. */
export function heardIn(plan: SitePlan, set: SiteSet, faults: readonly SiteFault[]): Heard {
  const bySet = heardOnce.get(faults) ?? new WeakMap<SiteSet, Heard>();
  heardOnce.set(faults, bySet);
  const before = bySet.get(set);
  if (before !== undefined) return before;
  const found = listen(plan, set, faults);
  bySet.set(set, found);
  return found;
}

/** A unit that is dead is heard by nobody, and nothing is heard through it. */
function listen(plan: SitePlan, set: SiteSet, faults: readonly SiteFault[]): Heard {
  const pulled = pulledLinks(faults);
  const dead = new Set(faults.flatMap(({ kind, at }) => (kind === 'unit-dropped' ? [at] : [])));
  const isPlanned = (kind: LinkKind): boolean =>
    plan.network.links.some(
      (link) =>
        link.kind === kind &&
        set.units.some(({ sourceId }) => sourceId === link.a.partId || sourceId === link.b.partId),
    );
  const alive = set.units.filter(({ unit }) => !dead.has(placeKey(set.stackId, unit.id)));
  const host = alive.find(({ isHost }) => isHost) ?? alive[0];
  const passes = (links: [string, string][]): [string, string][] =>
    links.filter(([a, b]) =>
      [a, b].every((part) => !set.units.some((unit) => unit.sourceId === part && !alive.includes(unit))),
    );
  const overBus = (kind: LinkKind): Set<string> =>
    host === undefined ? new Set() : reached(host.sourceId, passes(kindsOf(plan, kind, pulled)));
  const units = isPlanned('parallel-bus') ? overBus('parallel-bus') : undefined;
  const isBatteryBus = isPlanned('battery-bus');
  const modules = overBus('battery-bus');
  return {
    units: new Set(alive.filter(({ sourceId }) => units?.has(sourceId) ?? true).map(({ unit }) => unit.id)),
    modules: new Set(
      set.modules
        .filter(({ module }) => !isBatteryBus || modules.has(`module ${set.stackId}/${module.id}`))
        .map(({ module }) => module.id),
    ),
    isBatteryBus,
  };
}
